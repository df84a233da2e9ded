/** Documents for tests of the reader: pages of the demo website and hard cases, whole and mutated. */
import { chance } from '../../numbers';
import { demoAnswer } from '../../../../demo/site';

const paths = ['/', '/visit/', '/collections/', '/stories/', '/events/', '/shop/', '/visit/prices', '/learn/'];

const hardCases = `<!doctype html>
<title>Hard &amp; cases</title>
<base href="/base/">
<body id=top>
<nav><ul><li><a href=one>One<li><a href=two>Two <b>bold</b></a></ul></nav>
<p>Text <a href="a?b=1&amp;c=2" title='t'>in &lt;text&gt;<p>next <a href='#frag'>fragment</a>
<table id=t><tr><td><a href=cell>Cell</a><td><a href="cell2">Cell <i>two</i></a></table>
<div id="d"><a href=/block><div>Block <span id=s>inside</span></div></a></div>
<script>document.write('<a href="/not">no</a>')</script>
<style>a { content: '<a href=x>' }</style>
<textarea><a href=/not2>no</a></textarea>
<!-- <a href=/comment>no</a> -->
<template><a href=/template id=in-template>no</a></template>
<svg><title>Not this</title><a href=/svg>svg</a></svg>
<noscript><a href=/noscript>noscript</a></noscript>
<a href="//else.example/x">Else</a> <a href="mailto:x@y.example">mail</a> <a name=old>old</a>
<select><option>a<option>b</select>
<a HREF=/upper>UPPER &copy; &hellip;</a><a href=/next>next</a>
`;

/** Each document with a name; ASCII, so that bytes and characters have the same columns. */
export const corpus: [name: string, html: string][] = [
  ...paths.flatMap((path): [string, string][] => {
    const { body } = demoAnswer('www.larkfield.example', true, path);
    const html = String(body).replace(/[^\n\x20-\x7e]/g, '?');
    return html.includes('<a ') ? [[path, html]] : [];
  }),
  ['hard cases', hardCases],
];

const pieces = [
  '<a href=/new>',
  '</a>',
  '<p>',
  '</p>',
  '<div>',
  '</div>',
  '<td>',
  '<tr>',
  '<table>',
  '</table>',
  '<li>',
  '</ul>',
  '<!--',
  '-->',
  '<b>',
  '</b>',
  '<svg>',
  '</svg>',
  '<title>',
  '</title>',
  '<h1 id=h>',
  '</h1>',
  '"',
  "'",
  '<',
  '>',
  '&amp;',
  '&',
  '=',
  ' ',
  '\n',
  '/',
  '<select>',
  '</select>',
  '<button>',
  '<form>',
  '<option>',
  '<img alt=x>',
  '<br>',
  '<span id=y>',
  '<a name=z>',
  '<template>',
  '</template>',
];

/** A document of the corpus with up to six pieces cut, doubled, moved or put in. */
export function mutated(seed: number): string {
  const next = chance(seed);
  let html = corpus[next(corpus.length)][1];
  // A part of it, so that what comes of a mutation is not drowned.
  const from = next(Math.max(1, html.length - 1500));
  html = html.slice(from, from + 1500);
  for (let times = 1 + next(6); times > 0; times--) {
    const at = next(html.length + 1);
    const length = next(20);
    const kind = next(4);
    if (kind === 0) html = html.slice(0, at) + html.slice(at + length);
    else if (kind === 1) html = html.slice(0, at) + html.slice(at, at + length) + html.slice(at);
    else html = html.slice(0, at) + pieces[next(pieces.length)] + html.slice(at);
  }
  return html;
}
