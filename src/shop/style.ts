/** The chart table's look, by day and by night, in a few lines: no font, picture or script is fetched. */
export const STYLE = `:root{color-scheme:light dark;--paper:#fbfcfc;--ink:#15242e;--soft:#55666f;--rule:#d3dce1;--land:#e7d9ae;--edge:#8a7a45;--shoal:#a9cbd8}
@media (prefers-color-scheme:dark){:root{--paper:#101b22;--ink:#e6edf0;--soft:#9fb0b8;--rule:#2c3c46;--land:#6d6136;--edge:#b7a665;--shoal:#2c5264}}
*{box-sizing:border-box}body{margin:0;min-height:100vh;background:var(--paper);color:var(--ink);font:17px/1.5 system-ui,sans-serif;border-left:10px solid var(--land)}
main{max-width:42rem;padding:12vh 2rem 4rem;margin-left:clamp(0rem,10vw,12rem)}
h1{font-size:1.35rem;font-weight:400;margin:0;overflow-wrap:anywhere}.name{display:block;font:700 clamp(1.9rem,7vw,3.6rem)/1.1 ui-monospace,monospace;letter-spacing:-.02em}
.pitch{font-size:1.25rem}.terms{font-size:1.5rem;font-weight:700;margin:1.4rem 0 .4rem}p{margin:.4rem 0}.facts,ol{color:var(--soft)}.description{white-space:pre-line;margin-top:1rem}
.strip{display:flex;height:16px;margin:1.6rem 0 0;border-bottom:1px solid var(--rule)}.strip i{flex:3;background:var(--land);border:1px solid var(--edge)}.strip b{flex:1;background:repeating-linear-gradient(135deg,var(--shoal) 0 4px,transparent 4px 8px)}
h2{font-size:1rem;margin:2.4rem 0 .4rem}ol{margin:0;padding-left:1.3rem}`;
