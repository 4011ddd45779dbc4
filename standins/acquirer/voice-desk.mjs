/**
 * The page that takes the place of the voice on the telephone: whoever practises asks it for an approval
 * code. Anybody on this machine may; it gives nothing but codes.
 * @param {string | null} code Just given.
 */
export const voiceDesk = (code) => `<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width"><title>Voice approval (practice)</title>
<style>body{font:16px system-ui;max-width:40rem;margin:2rem auto;padding:0 1rem}button{font:inherit;padding:.7rem 1.2rem}output{display:block;font:700 2.4rem ui-monospace,monospace;margin:1rem 0}</style>
<h1>Voice approval, practice</h1>
<p>Takes the place of the telephone call in which an acquirer approves a card.</p>
${code === null ? '' : `<p>Approved. The code is</p><output>${code}</output>`}
<form method="post"><button>Ask for an approval</button></form></html>`;
