import { chromium } from "@playwright/test";
const b = await chromium.launch({executablePath:"/usr/bin/chromium",args:["--no-sandbox"]});
const p = await b.newPage({viewport:{width:1280,height:800}, colorScheme: process.env.DARK?"dark":"light"});
p.on("pageerror",e=>console.log("ERR",e.message)); p.on("console",m=>{if(m.type()==="error")console.log("LOG",m.text())});
await p.goto("http://localhost:7391"+process.argv[2]);
await p.waitForTimeout(1500);
for (const step of process.argv.slice(4)) { await eval(`(async()=>{${step}})()`); await p.waitForTimeout(700); }
await p.screenshot({path:process.argv[3]});
await b.close();
