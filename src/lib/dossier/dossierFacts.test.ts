import { expect, it } from 'vitest';
import { dossierFacts } from './dossierFacts';

it('says the facts of a dossier in words, and unknown as a dash', () => {
  const facts = {
    share: 1.3249,
    crawler_depth: null,
    held_back: 'robots',
    gate_for: 1,
    anchor_faults: ['off_topic', 'split'],
    canonical: 'https://museum.example/a',
    duplicates: 0,
    h1: '',
  };
  const said = Object.fromEntries(dossierFacts(facts, 'https://museum.example/'));
  expect(said).toMatchObject({
    Share: '1.32×',
    'As crawler': 'stopped by robots.txt',
    'Gate for': '1 page',
    'Their faults': 'off topic, split',
    Canonical: '/a',
    Duplicates: '0',
    Heading: '—',
    Variants: '—',
  });
});
