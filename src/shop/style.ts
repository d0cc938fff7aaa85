/** The chart table's look, by day and by night, in a few lines: no font or picture is fetched. */
export const STYLE = `:root{color-scheme:light dark;--paper:#fbfcfc;--ink:#15242e;--soft:#55666f;--rule:#d3dce1;--land:#e7d9ae;--edge:#8a7a45;--shoal:#a9cbd8;--deep:#1f5871;--on:#fff;--wrong:#9d2c1c}
@media (prefers-color-scheme:dark){:root{--paper:#101b22;--ink:#e6edf0;--soft:#9fb0b8;--rule:#2c3c46;--land:#6d6136;--edge:#b7a665;--shoal:#2c5264;--deep:#9fd0e3;--on:#0d1a21;--wrong:#f2a08f}}
*{box-sizing:border-box}body{margin:0;min-height:100vh;background:var(--paper);color:var(--ink);font:17px/1.5 system-ui,sans-serif;border-left:10px solid var(--land)}
main{max-width:42rem;padding:9vh 2rem 4rem;margin-left:clamp(0rem,10vw,12rem)}
h1{font-size:1.35rem;font-weight:400;margin:0;overflow-wrap:anywhere}.name{display:block;font:700 clamp(1.9rem,7vw,3.6rem)/1.1 ui-monospace,monospace;letter-spacing:-.02em}
.pitch{font-size:1.25rem}.terms{font-size:1.4rem;font-weight:700;margin:1.2rem 0 .4rem}p{margin:.4rem 0}.facts,ol{color:var(--soft)}.description{white-space:pre-line;margin-top:1rem;overflow-wrap:anywhere}
.strip{display:flex;height:16px;margin:1.6rem 0 0;border-bottom:1px solid var(--rule)}.strip i{flex:3;background:var(--land);border:1px solid var(--edge)}.strip b{flex:1;background:repeating-linear-gradient(135deg,var(--shoal) 0 4px,transparent 4px 8px)}
h2{font-size:1rem;margin:2.4rem 0 .4rem}ol{margin:0;padding-left:1.3rem}
form[data-work]{border-top:1px solid var(--rule);border-bottom:1px solid var(--rule);margin:1.6rem 0;padding:0 0 1rem}form h2{font-size:1.15rem;margin:1rem 0 .2rem}
label{display:block;margin:.8rem 0 .15rem}input,select,textarea,button{font:inherit;color:inherit}input:not([type=radio]),select,textarea{background:var(--paper);border:1px solid var(--soft);border-radius:2px;padding:.45rem .6rem;min-height:44px}
input:not([type=radio]),textarea{width:100%;max-width:26rem}.amount{display:flex;gap:.5rem;align-items:center}.amount input{max-width:14rem;font-family:ui-monospace,monospace;font-variant-numeric:tabular-nums}
button{min-height:44px;padding:.5rem 1.1rem;border:1px solid var(--deep);border-radius:2px;background:var(--deep);color:var(--on);font-weight:700;cursor:pointer}button.second{background:transparent;color:var(--deep)}
:focus-visible{outline:3px solid var(--edge);outline-offset:2px}[aria-busy] button{opacity:.55}.buttons{margin:1rem 0 .4rem;display:flex;gap:.6rem;flex-wrap:wrap}.wrong{color:var(--wrong);font-weight:700}.trap{position:absolute;left:-9999px}
.acts{display:flex;flex-wrap:wrap;gap:.4rem 1.6rem;align-items:end;margin:1rem 0 1.6rem}fieldset{border:0;padding:0;margin:.6rem 0}legend{font-weight:700;padding:0}.choice{display:flex;gap:.5rem;align-items:center;min-height:44px;margin:0}
.figures{list-style:none;padding:0;margin:1.6rem 0;border-top:1px solid var(--rule)}.figures li{padding:.5rem 0 .5rem 1rem;border-bottom:1px solid var(--rule);border-left:4px solid var(--shoal)}.figures .owner{border-left-color:var(--edge)}.figures b{font-weight:400;display:block}
.stages{list-style:none;padding:0;margin:1.4rem 0 0;display:flex;flex-wrap:wrap}.stages li{flex:1;min-width:6.5rem;border-top:8px solid var(--rule);padding:.3rem .5rem 0 0;font-size:.85rem}.stages .done{border-top-color:var(--edge)}.stages [aria-current]{font-weight:700;color:var(--ink)}`;
