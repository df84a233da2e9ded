import puppeteer from 'puppeteer-core';
const [,, base, ...steps] = process.argv;
const b = await puppeteer.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'], defaultViewport: { width: 1280, height: 800 } });
const p = await b.newPage();
p.on('console', (m) => ['error', 'warn'].includes(m.type()) && console.log('console', m.text()));
p.on('pageerror', (e) => console.log('pageerror', e.message));
for (const s of steps) {
  const [k, ...r] = s.split('='); const v = r.join('=');
  if (k === 'go') { await p.goto(base + v, { waitUntil: 'networkidle0' }); }
  if (k === 'shot') await p.screenshot({ path: v });
  if (k === 'click') { const [sel, text] = v.split('|'); const hs = await p.$$(sel); let done = false; for (const h of hs) { const t = await h.evaluate((e) => e.textContent.trim()); if (!text || t === text) { await h.click(); done = true; break; } } if (!done) console.log('no', v); await new Promise((ok) => setTimeout(ok, 400)); }
  if (k === 'type') { const [sel, text] = v.split('|'); await p.focus(sel); await p.keyboard.down('Control'); await p.keyboard.press('a'); await p.keyboard.up('Control'); await p.keyboard.type(text); }
  if (k === 'select') { const [sel, val] = v.split('|'); await p.select(sel, val); }
  if (k === 'key') await p.keyboard.press(v);
  if (k === 'wait') await new Promise((ok) => setTimeout(ok, Number(v)));
  if (k === 'text') console.log(await p.$eval(v, (e) => e.innerText));
  if (k === 'url') console.log(p.url());
}
await b.close();
