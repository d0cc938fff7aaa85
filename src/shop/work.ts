import { createHash, createHmac, timingSafeEqual } from 'node:crypto';

/** So many leading zero bits: some 65,000 hashes, well under a second in a browser, and dear for whoever sends thousands. */
export const WORK_BITS = 16;
/** Nobody fills a form sooner; and a page that is older is loaded again. */
const SOONEST_MS = 2000;
const LATEST_MS = 12 * 3_600_000;

/** A stamp of the moment at which a form was made. It is signed, so that none is made up or kept for ever. */
export function stampAt(key: Buffer, at: number): string {
  const time = at.toString(36);
  return `${time}.${createHmac('sha256', key).update(`stamp ${time}`).digest('base64url')}`;
}

/** Whether a stamp is ours, and neither too new for a person nor too old. */
export function isStampGood(key: Buffer, stamp: string, now: number): boolean {
  const at = Number.parseInt(stamp.split('.', 1)[0] ?? '', 36);
  if (!Number.isSafeInteger(at) || stamp.length > 100) return false;
  const [own, said] = [Buffer.from(stampAt(key, at)), Buffer.from(stamp)];
  return own.length === said.length && timingSafeEqual(own, said) && now - at >= SOONEST_MS && now - at < LATEST_MS;
}

/**
 * Whether the work for a letter was done: `proof` is a number whose SHA-256, behind that of the stamp and the mail address, begins with
 * `WORK_BITS` zero bits. It stands for this page and this address alone. Source: hashcash, the open method of proof of work.
 */
export function isWorkDone(stamp: string, mail: string, proof: string): boolean {
  if (!/^\d{1,10}$/.test(proof)) return false;
  const begin = createHash('sha256').update(`${stamp}:${mail.trim().toLowerCase()}`).digest('hex');
  return (
    createHash('sha256')
      .update(begin + proof)
      .digest()
      .readUInt32BE(0) >>>
      (32 - WORK_BITS) ===
    0
  );
}

/**
 * Does that work in the buyer's browser, in steps between which the page stays awake (by messages: timers of a page that is not looked at run once a second); without it the form is sent as it is. SHA-256 by FIPS
 * 180-4, of ASCII alone: what the browser has of its own is not there on a page without TLS.
 */
export const WORK_SCRIPT = `(()=>{const K=[],H=[];let n=2;for(;K.length<64;n++){let p=1;for(let d=2;d*d<=n;d++)if(n%d==0){p=0;break}if(p){const f=x=>(x-Math.floor(x))*4294967296|0;if(H.length<8)H.push(f(Math.sqrt(n)));K.push(f(Math.cbrt(n)))}}
const w=new Int32Array(64),rot=(x,s)=>x>>>s|x<<32-s;
const sha=t=>{const L=t.length,N=(L+72>>6)*16,m=new Int32Array(N),h=H.slice();for(let i=0;i<L;i++)m[i>>2]|=t.charCodeAt(i)<<24-i%4*8;m[L>>2]|=128<<24-L%4*8;m[N-1]=L*8;
for(let o=0;o<N;o+=16){let[a,b,c,d,e,f,g,k]=h;for(let i=0;i<64;i++){if(i<16)w[i]=m[o+i];else{const x=w[i-15],y=w[i-2];w[i]=w[i-16]+(rot(x,7)^rot(x,18)^x>>>3)+w[i-7]+(rot(y,17)^rot(y,19)^y>>>10)|0}
const t1=k+(rot(e,6)^rot(e,11)^rot(e,25))+(e&f^~e&g)+K[i]+w[i]|0,t2=(rot(a,2)^rot(a,13)^rot(a,22))+(a&b^a&c^b&c)|0;k=g;g=f;f=e;e=d+t1|0;d=c;c=b;b=a;a=t1+t2|0}
[a,b,c,d,e,f,g,k].forEach((v,i)=>h[i]=h[i]+v|0)}return h};
const hex=h=>h.map(v=>(v>>>0).toString(16).padStart(8,'0')).join('');
const form=document.querySelector('form[data-work]');if(!form)return;
form.addEventListener('submit',e=>{if(form.proof.value)return;e.preventDefault();const by=e.submitter,mail=form.mail.value.trim().toLowerCase();
if(/[^\\x20-\\x7e]/.test(mail)){form.proof.value='-';return form.requestSubmit(by)}
const begin=hex(sha(form.stamp.value+':'+mail)),turn=new MessageChannel;let i=0;form.setAttribute('aria-busy','true');
turn.port1.onmessage=()=>{for(const end=i+2000;i<end;i++)if(!(sha(begin+i)[0]>>>${32 - WORK_BITS})){form.proof.value=String(i);form.removeAttribute('aria-busy');turn.port1.close();return form.requestSubmit(by)}turn.port2.postMessage(0)};turn.port2.postMessage(0)})})()`;
