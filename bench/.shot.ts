import puppeteer from 'puppeteer-core';
const [url, out, w, h, theme, ...keys] = process.argv.slice(2);
const b = await puppeteer.launch({executablePath:'/usr/bin/chromium',headless:true,args:['--no-sandbox','--disable-gpu']});
const p = await b.newPage(); await p.setViewport({width:+w!,height:+h!});
await p.evaluateOnNewDocument((t: string)=>{localStorage.setItem('fairwatt.technician','mara');localStorage.setItem('fairwatt.theme',t)}, theme);
await p.goto(url!,{waitUntil:'domcontentloaded'}); await new Promise(r=>setTimeout(r,1800));
const js = process.env['JS']; if (js) { await p.evaluate(js); await new Promise(r=>setTimeout(r,1500)); }
await p.screenshot({path:out as `${string}.png`}); await b.close();
