import puppeteer from 'puppeteer-core';
const quiet = ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'];
const b = await puppeteer.launch({ executablePath: '/usr/bin/chromium', args: quiet });
const p = await b.newPage(); await p.setViewport({ width: 1280, height: 800 });
p.on('pageerror', (e)=>console.log('ERR', e.message)); p.on('console', m=>m.type()==='error'&&console.log('CON',m.text()));
const base='http://127.0.0.1:4555';
const [,, what]=process.argv;
const snap=(n)=>p.screenshot({path:`/tmp/shots/${n}.png`});
const wait=(ms)=>new Promise(r=>setTimeout(r,ms));
if (what==='watch') {
  await p.goto(base+'/'); await p.waitForSelector('html[data-ready]'); await snap('home');
  await p.type('input', 'http://127.0.0.1:4666/'); await p.keyboard.press('Enter');
  await p.waitForFunction(()=>location.pathname.endsWith('/watch'),{timeout:30000}); await wait(9000); await snap('watch');
  await p.emulateMediaFeatures([{name:'prefers-color-scheme',value:'dark'}]); await wait(500); await snap('watch-dark'); console.log(p.url());
}
if (what==='goto') { await p.goto(process.argv[3].startsWith('http')?process.argv[3]:base+process.argv[3]); await p.waitForSelector('html[data-ready]'); if (process.argv[5]==='dark') await p.emulateMediaFeatures([{name:'prefers-color-scheme',value:'dark'}]); await wait(1800); await snap(process.argv[4]); }
await b.close();
