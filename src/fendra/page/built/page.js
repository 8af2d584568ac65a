var Nt,Rd,fs,sc,To,Cd,uo,Pd,mu,rc,Wo=Symbol.for("pv"),bo={},wo=[],Vm=/^m(i|n|o|s|text|space)$/,gu=Array.isArray,Ld=wo.slice,Ns=Object.assign;function Ds(n){n&&n.parentNode&&n.remove()}function fo(n,e,t,i,s){var r={type:n,props:e,key:t,ref:i,__k:null,__:null,__b:0,__e:null,__c:null,constructor:Wo,__v:s||++Rd,__i:-1,__u:0};return!s&&Nt.vnode&&Nt.vnode(r),r}function Sa(n){return n.children}function ho(n,e){this.props=n,this.context=e,this.__g=0}function vs(n,e){if(e==null)return n.__&&vs(n.__,n.__i+1);for(var t;e<n.__k.length;e++)if((t=n.__k[e])&&t.__e)return t.__e;return typeof n.type!="function"||n.props.__P?null:vs(n)}function Wm(n){var e,t=n.__v,i=t.__e,s=[],r=[],a=n.__P;a&&((e=Ns({constructor:Wo},t)).__v=t.__v+1,Nt.vnode&&Nt.vnode(e),_u(a,e,t,n.__n,a.namespaceURI,32&t.__u?[i]:null,s,i||vs(t),32&t.__u,r),e.__v=t.__v,e.__.__k[e.__i]=e,Od(s,e,r),t.__=t.__e=null,e.__e!=i&&Dd(e))}function Dd(n){if((n=n.__)&&n.__c&&!n.props.__P)return n.__e=null,n.__k.some(function(e){return e&&(n.__e=e.__e)}),Dd(n)}function xf(n){(8&n.__g||(n.__g|=8,fs.push(n),To++))&&sc==Nt.debounceRendering||((sc=Nt.debounceRendering)||queueMicrotask)(Nd)}function Nd(){try{for(var n,e=1;fs.length;)fs.length>e&&fs.sort(Cd),n=fs.shift(),e=fs.length,8&n.__g&&Wm(n)}finally{(To=fs.length)&&(sc||queueMicrotask)(Nd)}}function Id(n,e,t,i,s,r,a,o,l,c,u){var d,f,h,g,M,p,m=i.__k||wo,x=e.length;for(l=Xm(t,e,m,l,x),d=0;d<x;d++)(h=t.__k[d])!=null&&(f=~h.__i&&m[h.__i]||bo,h.__i=d,p=_u(n,h,f,s,r,a,o,l,c,u),g=h.__e,(f.ref!=h.ref||8&f.__u)&&(f.ref&&vu(f.ref,null,h,f),h.ref&&u.push(h.ref,h.__c||g,h)),M=M||g,4&h.__u?(l=Ud(h,l,n,!f.__v),f.__e&&(f.__e=null)):typeof h.type=="function"&&p!==void 0?l=p:g&&(l=g.nextSibling),h.__u&=-21);return t.__e=M,l}function Xm(n,e,t,i,s){var r,a,o,l,c,u,d,f,h,g=t.length,M=g,p=0,m=0,x=n.__k=Array(s);for(r=0;r<s;r++)(a=e[r])!=null&&typeof a!="boolean"&&typeof a!="function"?(typeof a!="object"||a.constructor===String?a=x[r]=fo(null,a):gu(a)?a=x[r]=fo(Sa,{children:a}):a.constructor===Wo&&a.__b?a=x[r]=fo(a.type,a.props,a.key,a.ref,a.__v):x[r]=a,l=r+p,a.__=n,a.__b=n.__b+1,o=null,~(c=a.__i=qm(a,t,l,M))&&(M--,(o=t[c])&&(o.__u|=2)),o&&o.__v?(a.__u|=16,c==l-1?p--:c==l+1?p++:c!=l&&(c>l?p--:p++,m=1)):(~c||(s>g?p--:s<g&&p++),typeof a.type!="function"&&(a.__u|=4))):x[r]=null;if(m){for(u=[],d=[],r=0;r<s;r++)if((a=x[r])&&16&a.__u){for(p=0,f=u.length;p<f;)u[h=p+f>>1]<a.__i?p=h+1:f=h;u[p]=a.__i,d[r]=p+1}for(p=u.length;r--;)d[r]&&(d[r]==p?p--:x[r].__u|=4)}if(M)for(r=0;r<g;r++)!(o=t[r])||2&o.__u||(o.__e==i&&(i=vs(o)),xu(o,o));return i}function Ud(n,e,t,i){var s,r,a,o;if(typeof n.type=="function"){if(n.props.__P)return e;if(s=n.__k)for(r=0;r<s.length;r++)s[r]&&(s[r].__=n,e=Ud(s[r],e,t,!1));return e}for(e&&!e.parentNode&&(e=vs(n))&&!e.parentNode&&(e=null),a=n.__e,o=e;o&&o.nodeType==8;)o=o.nextSibling;for(a!=o&&(!i&&t.moveBefore&&a.parentNode?t.moveBefore(a,e):t.insertBefore(a,e||null)),e=a;(e=e&&e.nextSibling)&&e.nodeType==8&&!e.data.startsWith("$s"););return e}function qm(n,e,t,i){var s,r=n.key,a=n.type,o=e[t],l=o&&!(2&o.__u);if(o===null&&r==null||l&&r==o.key&&a==o.type)return t;if(i>(l?1:0)){for(s=t-1;s>=0;s--)if((o=e[s])&&!(2&o.__u)&&r==o.key&&a==o.type)return s;for(s=t+1;s<e.length;s++)if((o=e[s])&&!(2&o.__u)&&r==o.key&&a==o.type)return s}return-1}function Sf(n,e,t){t==null&&(t=""),e[0]=="-"?n.setProperty(e,t):n[e]=t}function Ca(n,e,t,i,s){var r,a;if(e=="style")if(typeof t=="string")n.style.cssText=t;else{if(typeof i=="string"&&(n.style.cssText=i=""),i)for(e in i)t&&e in t||Sf(n.style,e);if(t)for(e in t)i&&t[e]==i[e]||Sf(n.style,e,t[e])}else if(e[0]=="o"&&e[1]=="n")typeof t!="function"&&(t=null),typeof i!="function"&&(i=null),(n.__e||(n.__e={}))[e]=t,t&&i||(a=rc[e]||(rc[e]=Ym(e)),(n.__a||(n.__a={}))[e]=mu,r=e!=(e=e.replace(Pd,"$1")),(e=e.slice(2))[0]<"a"&&(e=e.toLowerCase()),t?n.addEventListener(e,a,r):n.removeEventListener(e,a,r));else{if(s=="http://www.w3.org/2000/svg")e=e.replace(/xlink(H|:h)/,"h").replace(/sName$/,"s");else if(e!="width"&&e!="height"&&e!="href"&&e!="list"&&e!="form"&&e!="tabIndex"&&e!="download"&&e!="rowSpan"&&e!="colSpan"&&e!="role"&&e!="popover"&&e in n)try{return void(n[e]=t??"")}catch{}if(typeof t=="function")return;t==null||t===!1&&e[4]!="-"?n.removeAttribute(e):n.setAttribute(e,e=="popover"&&t==1?"":t)}}function Ym(n){return function(e){var t=this.__e;if(t){if(t=t[n],e[uo]==null)e[uo]=mu++;else if(e[uo]<this.__a[n])return;return t(Nt.event?Nt.event(e):e)}}}function _u(n,e,t,i,s,r,a,o,l,c){var u,d,f,h,g,M,p,m,x,A,S,R,w,_,b,z,N,L,G=e.type;if(e.constructor!==Wo)return null;128&t.__u&&(l=32&t.__u,u=t.__c.__z)&&(e.__u|=l,d=r=[],u.nodeType==8?o=po(u,r):r.push(u),o=r[0]||o),(u=Nt.__b)&&u(e);e:if(typeof G=="function"){f=a.length;try{if(m=e.props,x=(u=G.prototype)&&u.render,A=(u=G.contextType)&&i[u.__c],S=u?A?A.props.value:u.__:i,(h=t.__c)?(e.__c=h,2&h.__g&&(h.__g|=1)):(x?e.__c=h=new G(m,S):(e.__c=h=new ho(m,S),h.constructor=G,h.render=Km),A&&A.sub(h),h.state||(h.state={}),h.__n=i,h.__g|=8,h.__h=[],h.__k=[]),x&&(h.__s||(h.__s=h.state),G.getDerivedStateFromProps&&(h.__s==h.state&&(h.__s=Ns({},h.__s)),Ns(h.__s,G.getDerivedStateFromProps(m,h.__s)))),g=h.props,M=h.state,h.__v=e,t.__c){if(m!==g&&x&&!G.getDerivedStateFromProps&&h.componentWillReceiveProps&&h.componentWillReceiveProps(m,S),e.__v==t.__v&&!(8&h.__g)||!(4&h.__g)&&h.shouldComponentUpdate&&h.shouldComponentUpdate(m,h.__s,S)===!1){e.__v!=t.__v&&(h.props=m,h.state=h.__s,h.__g&=-9),e.__e=t.__e,e.__k=t.__k,e.__k.some(function(k){k&&(k.__=e)}),wo.push.apply(h.__h,h.__k),h.__k=[],h.__h.length&&a.push(h),o=vs(t);break e}h.componentWillUpdate&&h.componentWillUpdate(m,h.__s,S),x&&h.componentDidUpdate&&h.__h.push(function(){h.componentDidUpdate(g,M,p)})}else x&&!G.getDerivedStateFromProps&&h.componentWillMount&&h.componentWillMount(),x&&h.componentDidMount&&h.__h.push(h.componentDidMount);h.context=S,h.props=m,h.__P=n,h.__g&=-5,R=Nt.__r,w=x?25:0;do h.__g&=-9,R&&R(e),u=h.render(h.props,h.state=h.__s,h.context);while(8&h.__g&&++w<25);x&&(wo.push.apply(h.__h,h.__k),h.__k=[]),h.state=h.__s,h.getChildContext&&(i=Ns({},i,h.getChildContext())),x&&t.__c&&h.getSnapshotBeforeUpdate&&(p=h.getSnapshotBeforeUpdate(g,M)),_=u&&u.type===Sa&&u.key==null?u.props.children:u,m.__P&&(u=o,s=(n=m.__P).namespaceURI,l=r=null,t.props&&t.props.__P!=n&&(t.__k.some(function(k){k&&xu(k,k)}),t.__k=null),o=t.__k?vs(t,0):null),o=Id(n,gu(_)?_:[_],e,t,i,s,r,a,o,l,c),m.__P&&(e.__e=null,o=u),e.__u&=-161,d&&d.some(Ds),h.__h.length&&a.push(h),1&h.__g&&(h.__g&=-4)}catch(k){if(a.length=f,e.__v=null,l||r)if(k&&k.then){if(e.__u|=128|l,r){for(~(N=r.indexOf(o||void 0))||(N=r.length);(L=r[N-1])&&L.nodeType==8;)N--;for(;N<r.length;N++)if(L=r[N])if(r[N]=null,b){if(L==z)break}else{if(L.nodeType!=8)break;L.data.startsWith("$s")&&(z=po(b=L))}}if(!b){for(;o&&o.nodeType==8&&o.nextSibling;)o=o.nextSibling;b=o}(u=po(b=e.__c.__z||(e.__c.__z=b)))?(e.__e=b,o=u):e.__e=o,o=o&&o.nextSibling}else r&&r.some(Ds);else e.__e=t.__e;e.__k||(e.__k=t.__k||[]),k&&k.then||Fd(e),Nt.__e(k,e,t)}}else o=e.__e=$m(t.__e,e,t,i,s,r,a,l,c,n);return(u=Nt.diffed)&&u(e),o}function po(n,e){if(n&&n.nodeType==8&&n.data.startsWith("$s"))for(var t=1;n=n.nextSibling;){if(n.nodeType==8){if(n.data.startsWith("$s"))t++;else if(n.data.startsWith("/$s")&&!--t)return n}e&&e.push(n)}}function Fd(n){n&&(n.__c&&(n.__c.__g|=4),n.__k&&n.__k.some(Fd))}function Od(n,e,t){for(var i=0;i<t.length;)vu(t[i++],t[i++],t[i++]);Nt.__c&&Nt.__c(e,n),n.some(function(s){try{n=s.__h,s.__h=[],n.some(function(r){r.call(s)})}catch(r){Nt.__e(r,s.__v)}})}function $m(n,e,t,i,s,r,a,o,l,c){var u,d,f,h,g,M,p,m,x=t.props||bo,A=e.props,S=e.type;if(S=="svg"?s="http://www.w3.org/2000/svg":S=="math"?s="http://www.w3.org/1998/Math/MathML":s||(s="http://www.w3.org/1999/xhtml"),r){for(u=0;u<r.length;u++)if((g=r[u])&&(S?g.localName==S:g.nodeType==3)){n=g,r[u]=null;break}}if(!n){if(m=c.ownerDocument||document,!S)return m.createTextNode(A);n=m.createElementNS(s,S,A.is?A:c),o&&(Nt.__m&&Nt.__m(e,r),o=!1),r=null}if(S){if(c=S=="template"&&n.content||n,r=S=="textarea"&&A.defaultValue!=null?null:r&&Ld.call(c.childNodes),!o&&r)for(x={},u=0;u<n.attributes.length;u++)x[(g=n.attributes[u]).name]=g.value;for(u in x)g=x[u],u=="dangerouslySetInnerHTML"?f=g:u=="children"||u in A||u=="value"&&"defaultValue"in A||u=="checked"&&"defaultChecked"in A||Ca(n,u,null,g,s);for(u in A)g=A[u],u=="children"?h=g:u=="dangerouslySetInnerHTML"?d=g:u=="value"?M=g:u=="checked"?p=g:o&&typeof g!="function"||x[u]===g||Ca(n,u,g,x[u],s);d?(o||f&&(d.__html==f.__html||d.__html==n.innerHTML)||(n.innerHTML=d.__html),e.__k=[]):(f&&(n.textContent=""),(S=="foreignObject"||s=="http://www.w3.org/1998/Math/MathML"&&Vm.test(S))&&(s="http://www.w3.org/1999/xhtml"),Id(c,gu(h)?h:[h],e,t,i,s,r,a,r?r[0]:t.__k&&vs(t,0),o,l),r&&r.some(Ds)),o&&S!="textarea"||(u="value",S=="progress"&&M==null?n.removeAttribute(u):M==null||M===n[u]&&(S!="progress"||M)||Ca(n,u,M,x[u],s),u="checked",p!=null&&p!=n[u]&&Ca(n,u,p,x[u],s))}else x===A||o&&n.data==A||(n.data=A);return n}function vu(n,e,t,i){try{typeof n=="function"?e?e.__x=n(e)||1:i&&(i=i.__c||i.__e)&&(e=i.__x)&&(i.__x=null,typeof e=="function"?e():n(null)):n.current=e}catch(s){Nt.__e(s,t)}}function xu(n,e,t){var i,s,r,a;if(Nt.unmount&&Nt.unmount(n),!(i=n.ref)||i.current&&i.current!=n.__e||vu(i,null,e,n),i=n.__c){if(i.componentWillUnmount)try{i.componentWillUnmount()}catch(o){Nt.__e(o,e)}i.__P=i.__n=null}if(i=n.__k)for(a=0;a<i.length;a++)i[a]&&xu(i[a],e,typeof n.type!="function"||t&&!n.props.__P);!t&&(i=n.__c)&&(i=i.__z)&&(s=po(i,r=[]))&&(i==n.__e&&r.some(Ds),Ds(s),Ds(i)),t||Ds(n.__e),n.__e=n.__c=n.__=null}function Km(n,e,t){return this.constructor(n,t)}function Zm(n,e){var t,i,s,r;Nt.__&&Nt.__(n,e),e.nodeType==9&&(e=e.documentElement),i=(t=n&&32&n.__u)?null:e.__k,e.__k=fo(Sa,{children:[n]}),s=[],r=[],_u(e,e.__k,i||bo,bo,e.namespaceURI,i?null:e.firstChild?Ld.call(e.childNodes):null,s,i?i.__e:e.firstChild,t,r),Od(s,e.__k,r),e.__k.props.children=null}Nt={__e:function(n,e,t,i){for(var s,r,a;e=e.__;)if((s=e.__c)&&!(1&s.__g)){s.__g|=4;try{if((a=(r=s.constructor)&&r.getDerivedStateFromError)&&s.setState(r.getDerivedStateFromError(n)),s.componentDidCatch&&(s.componentDidCatch(n,i||{}),a=1),a&&8&s.__g)return void(s.__g|=2)}catch(o){n=o}}throw To=0,n}},Rd=0,ho.prototype.setState=function(n,e){var t=this.__s;t&&t!=this.state||(t=this.__s=Ns({},this.state)),typeof n=="function"&&(n=n(Ns({},t),this.props)),n&&(Ns(t,n),this.__v&&(e&&this.__k.push(e),xf(this)))},ho.prototype.forceUpdate=function(n){this.__v&&(this.__g|=4,n&&this.__h.push(n),xf(this))},ho.prototype.render=Sa,fs=[],To=0,Cd=function(n,e){return n.__v.__b-e.__v.__b},uo=Symbol(),Pd=/(PointerCapture)$|Capture$/i,mu=0,rc={};var Jm=Symbol.for("pv"),Qm=0;function se(n,e,t,i,s,r){e||(e={});var a,o,l=e;if("ref"in l&&typeof n!="function")for(o in l={},e)o=="ref"?a=e[o]:l[o]=e[o];var c={type:n,props:l,key:t,ref:a,__k:null,__:null,__b:0,__e:null,__c:null,constructor:Jm,__v:--Qm,__i:-1,__u:0};return Nt.vnode&&Nt.vnode(c),c}const jm={s:"set",l:"lost",f:"free"},eg=6e3;function tg(n){const e=new URLSearchParams;e.set("t",n.time.toFixed(3)),n.speed!==1&&e.set("speed",String(n.speed)),e.set("view",n.view);const t=["wires","names","addresses"].filter(s=>n[s]);t.length>0&&e.set("show",t.join(",")),n.led!==void 0&&e.set("led",String(n.led));for(const s of n.deeds){const r=s.values.map(a=>String(Number(a.toPrecision(9))));e.append("do",[s.at.toFixed(3),s.what[0],s.signal,...r].join("~"))}const i=e.toString();return i.length>eg?"":i}function ng(n){const e=new URLSearchParams(n.replace(/^#/,"")),t={},i=Pa(e.get("t"));i!==void 0&&(t.time=i);const s=Pa(e.get("speed"));s!==void 0&&s>0&&s<=8&&(t.speed=s);const r=e.get("view");r&&(t.view=r);const a=(e.get("show")??"").split(",");for(const l of["wires","names","addresses"])t[l]=a.includes(l);const o=Pa(e.get("led"));return o!==void 0&&o>=0&&(t.led=Math.floor(o)),t.deeds=e.getAll("do").flatMap(l=>{const[c,u,d,...f]=l.split("~"),h=f.map(Number),g=Pa(c??null),M=jm[u];return g===void 0||!M||!d||h.some(p=>!Number.isFinite(p))?[]:[{at:g,signal:d,what:M,values:h}]}),t}function Pa(n){const e=n===null||n===""?NaN:Number(n);return Number.isFinite(e)?e:void 0}const pl=.1,ig=.8,sg=3,rg=1;class ag{extreme;way=0;turns=[];push(e,t){this.extreme===void 0&&(this.extreme=t);const i=t-this.extreme;return Math.sign(i)===this.way||this.way===0?((Math.abs(i)>=pl||Math.sign(i)===this.way)&&(this.extreme=t),this.way===0&&Math.abs(i)>=pl&&(this.way=Math.sign(i))):Math.abs(i)>=pl&&Math.min(t,this.extreme)<ig&&(this.turns.push(e),this.way=Math.sign(i),this.extreme=t),this.turns=this.turns.filter(s=>e-s<rg),this.turns.length>=2*(sg+1)}reset(){this.extreme=void 0,this.way=0,this.turns=[]}}function og(n){let e=0;for(let t=0;t<n.length;t+=3)e+=.2126*n[t]+.7152*n[t+1]+.0722*n[t+2];return n.length>0?e/(255*(n.length/3)):0}function Xo(n){const e=atob(n),t=new Uint8Array(e.length);for(let i=0;i<e.length;i++)t[i]=e.charCodeAt(i);return t}const mr=n=>new Uint32Array(Xo(n).buffer),ac=n=>new Float32Array(Xo(n).buffer);function oc(n,e){const t=["red","green","blue"].map(i=>n(`${e}:${i}`));return t.includes(void 0)?void 0:t}class Su{places;exports;owners;constructor(e,t){this.places=e.memory,this.exports=t,this.owners=Object.keys(e.memory.signals),this.reset()}static async start(e){const{instance:t}=await WebAssembly.instantiate(Xo(e.module),{});return new Su(e,t.exports)}reset(){this.exports.init(),this.leaveOut(()=>!1)}feed(e,t){const i=this.places.signals[e];if(i===void 0)return;const s=this.view();s.setFloat32(i,t,!0),s.setUint32(i+4,1,!0)}step(e){this.exports.step(e|0);const t=this.view();for(const i of this.owners)t.setUint32(this.places.signals[i]+4,0,!0)}snapshot(){return new Uint8Array(this.exports.memory.buffer,0,this.places.state_end).slice()}restore(e){new Uint8Array(this.exports.memory.buffer).set(e)}rgb(){return new Uint8Array(this.exports.memory.buffer,this.places.rgb,3*this.places.leds)}seen(){return this.exports.see?.(),new Uint8Array(this.exports.memory.buffer,this.places.seen,3*this.places.leds)}amps(){this.exports.draw?.();const e=this.view(),t={};for(const[i,s]of Object.entries(this.places.draws))t[i]=e.getFloat64(s,!0)/255/1e6;return t}letThrough(e){const t=this.places.limits[e];return t===void 0?1:this.view().getUint32(t,!0)/65536}read(e){if(!e)return 0;if(e.at===null||e.at===void 0)return e.value??0;const t=this.view();return e.kind==="f32"?t.getFloat32(e.at,!0):t.getUint32(e.at,!0)}told(e){const t=this.places.told[e];return t&&this.read(t)}toldLight(e){return oc(t=>this.told(t),e)}lightWithout(e,t){this.leaveOut(t),this.exports.paint(),this.leaveOut(()=>!1);const{canvas:i,plane:s}=this.places,r=this.view(),a=o=>r.getFloat32(i+o*s+4*e,!0);return[a(0),a(1),a(2)]}tell(e,t,i){const s=this.places.layers.find(a=>a.number===e),r=this.exports[`tell${e}`];return typeof r=="function"&&r(t,i),a=>{const o=s?.tells[a];return o?this.read(o):this.told(`why:layer:${e}:${a}`)}}leaveOut(e){const t=this.view();for(const i of this.places.layers)t.setUint32(i.left_out,e(i.number)?1:0,!0)}view(){return new DataView(this.exports.memory.buffer)}}class lg{constructor(e){this.look=e,this.line=mr(e.spots.line),this.part=mr(e.spots.part),this.address=mr(e.spots.address),this.index=mr(e.spots.index)}look;line;part;address;index;indexOf(e){return this.index[e]}nameOf(e){const t=this.look.spots.names[String(e)],i=`${this.look.parts[this.part[e]]??""}:${this.index[e]}`;return t?`${i} (${t})`:i}}class cg{news;values;before;constructor(e,t,i){this.news=Xo(e),this.values=ac(t),this.before=new Uint32Array(i+1);for(let s=0;s<i;s++)this.before[s+1]=this.before[s]+(this.isNew(s)?1:0)}isNew(e){return((this.news[e>>3]??0)&1<<(e&7))!==0}last(e){const t=this.before[Math.min(e+1,this.before.length-1)];return t>0?this.values[t-1]:void 0}}class ug{name;frames;clock;courses=new Map;constructor(e){this.name=e.name,this.frames=e.frames,this.clock=mr(e.clock_ms);for(const[t,i]of Object.entries(e.courses))this.courses.set(t,new cg(i.news,i.values,e.frames))}has(e){return this.courses.has(e)}clockMs(e){return this.clock[e]}news(e,t){const i=this.courses.get(e);return i&&t<this.frames&&i.isNew(t)?i.last(t):void 0}last(e,t){return this.courses.get(e)?.last(t)}}const Mf=250,Bd=new Set(["event","text"]);class Ao{constructor(e,t,i){this.look=e,this.module=t,this.deeds=i,this.tape=e.tape?new ug(e.tape):void 0,this.spots=new lg(e),this.signals=e.signals.filter(s=>s.of==="")}look;module;deeds;tape;spots;frame=-1;made=0;snapshots=new Map;signals;held=new Map;next=0;static async start(e,t){return new Ao(e,await Su.start(e),t)}seen(){return this.module.seen()}frameAt(e){return Math.floor(e*this.look.rate+1e-6)}clockMs(e){return this.tape?.clockMs(e)??Math.round(e*1e3/this.look.rate)}changed(e){const t=this.frameOf(e);for(const i of this.snapshots.keys())i>=t&&this.snapshots.delete(i);t<=this.frame&&this.begin(this.frame)}goTo(e,t){for(e<this.frame&&this.begin(e);this.frame<e;)this.step(),t?.(this.frame)}async film(e){const t=await Ao.start(this.look,[]),i=3*this.look.spots.count,s=new Uint8Array(e*i);return t.goTo(e-1,r=>s.set(t.module.rgb(),r*i)),s}frameOf(e){return Math.ceil(e*this.look.rate-1e-6)}begin(e){let t=-1;for(const i of this.snapshots.keys())i<=e&&i>t&&(t=i);for(t<0?this.module.reset():this.module.restore(this.snapshots.get(t)),this.frame=t,this.made++,this.held.clear(),this.next=0;this.next<this.deeds.length&&this.frameOf(this.deeds[this.next].at)<=t;)this.take()}take(){const e=this.deeds[this.next++];return e.what==="free"?this.held.delete(e.signal):this.held.set(e.signal,e),e}step(){this.frame++,this.made++;const e=new Map;for(;this.next<this.deeds.length&&this.frameOf(this.deeds[this.next].at)<=this.frame;){const t=this.take();e.set(t.signal,t)}for(const t of this.signals)this.feed(t,e.get(t.name));this.module.step(this.clockMs(this.frame)),this.frame%Mf===Mf-1&&this.snapshots.set(this.frame,this.module.snapshot())}feed(e,t){const i=this.held.get(e.name),s=Bd.has(e.kind);if(i?.what!=="lost"){if(t?.what==="set"||i&&!s){const r=(t?.what==="set"?t:i).values;e.parts.forEach((a,o)=>this.module.feed(a,r[o]??0));return}for(const r of e.parts){const o=t?.what==="free"&&!s?this.tape?.last(r,this.frame):this.tape?.news(r,this.frame);o!==void 0&&this.module.feed(r,o)}}}}const fg=240,yf=30;class Mu{constructor(e,t){this.runs=e,this.deeds=t}runs;deeds;time=0;isPlaying=!1;speed=1;isReady=!1;flashes="unasked";timing={module:[],draw:[],between:[]};guards=new Map;listeners=new Set;painters=[];static async start(e,t){const i=t.toSorted((a,o)=>a.at-o.at),s=await Promise.all(e.looks.map(a=>Ao.start(a,i))),r=new Mu(s,i);return r.goTo(0),r}get first(){return this.runs[0]}get period(){return 1/this.first.look.rate}get end(){const e=this.first.tape;return e?(e.frames-1)*this.period:yf*Math.max(1,Math.ceil((this.time+1)/yf))}onChange(e){return this.listeners.add(e),()=>this.listeners.delete(e)}onFrame(e){this.painters.push(e)}tell(){for(const e of this.listeners)e()}goTo(e){const t=this.first.tape?this.end:1/0;this.time=Math.min(Math.max(e,0),t);const i=performance.now();for(const s of this.runs)s.goTo(s.frameAt(this.time),()=>{for(const r of this.painters)r(s);this.watch(s)});if(lc(this.timing.module,performance.now()-i),!this.isPlaying)for(const s of this.guards.values())s.reset()}watch(e){if(this.flashes!=="unasked"||!this.isPlaying)return;const t=this.guards.get(e)??new ag;this.guards.set(e,t),t.push(e.frame/e.look.rate,og(e.module.seen()))&&(this.flashes="asking",this.play(!1))}pass(e){if(lc(this.timing.between,e*1e3),!this.isPlaying)return;const t=this.time+Math.min(e,.25)*this.speed;this.goTo(t),this.first.tape&&t>=this.end&&(this.isPlaying=!1,this.tell())}play(e){e&&this.first.tape&&this.time>=this.end-1e-9&&this.goTo(0),this.isPlaying=e,this.tell()}stepBy(e){this.isPlaying=!1;const t=this.first.frameAt(this.time)+e;this.goTo(t*this.period),this.tell()}do(e,t,i=[]){const r=(this.first.frameAt(this.time)+(this.isPlaying?1:0))*this.period,a=this.deeds.findIndex(c=>c.signal===e&&Math.abs(c.at-r)<1e-9);a>=0&&this.deeds.splice(a,1);const o=this.deeds.findIndex(c=>c.at>r+1e-9);this.deeds.splice(o<0?this.deeds.length:o,0,{at:r,signal:e,what:t,values:i});const l=this.time;for(const c of this.runs)c.changed(r);this.goTo(l),this.tell()}deedOf(e){const i=this.deeds.filter(s=>s.signal===e&&s.at<=this.time+this.period).at(-1);return i?.what==="free"?void 0:i}answer(e){this.flashes=e?"shown":"dimmed",this.play(!0)}}function lc(n,e){n.push(e),n.length>fg&&n.shift()}var fa,dn,ml,Ef,cc=Object.is,Ro=0,zd=[],uc=[],on=Nt,Tf=on.__b,bf=on.__r,wf=on.diffed,Af=on.__c,Rf=on.unmount,Cf=on.__;function yu(n,e){on.__h&&on.__h(dn,n,Ro||e),Ro=0;var t=dn.__H||(dn.__H={__:[],__h:[]});return n>=t.__.length&&t.__.push({}),t.__[n]}function fc(n){return Ro=1,kd(Hd,n)}function kd(n,e,t){var i=yu(fa++,2);if(i.t=n,!i.__c&&(i.__=[Hd(void 0,e),function(r){var a=(i.__N||i.__)[0],o=i.t(a,r);cc(a,o)||(i.__N=[o,i.__[1]],i.__c.setState({}))}],i.__c=dn,!dn.__f)){dn.__f=!0;var s=dn.shouldComponentUpdate;dn.shouldComponentUpdate=function(r,a,o){var l=this.__H;if(!l)return!0;var c=!1,u=this.props!=r;if(l.__.some(function(f){f.__N&&(c=!0,cc(f.__[0],f.__N[0])||(u=!0))}),s){var d=s.call(this,r,a,o);return c?d||u:d}return!c||u}}return i.__}function Ki(n,e){var t=yu(fa++,3);!on.__s&&Gd(t.__H,e)&&(t.__P=!0,t.__=n,t.u=e,dn.__H.__h.push(t))}function Ci(n){return Ro=5,mo(function(){return{current:n}},[])}function mo(n,e){var t=yu(fa++,7);return Gd(t.__H,e)&&(t.__=n(),t.__H=e),t.__}function hg(){var n;do{for(;n=uc.shift();)try{ra(n)}catch(t){on.__e(t,{__:(n=n.__P)&&n.__v})}for(;n=zd.shift();){var e=n.__H;if(n.__P&&e)try{e.__h.some(ra),e.__h.some(hc),e.__h=[]}catch(t){e.__h=[],on.__e(t,n.__v)}}}while(uc.length)}on.__b=function(n){dn=null,Tf&&Tf(n)},on.__=function(n,e){n&&e.__k&&e.__k.__m&&(n.__m=e.__k.__m),Cf&&Cf(n,e)},on.__r=function(n){bf&&bf(n),fa=0;var e=(dn=n.__c).__H;e&&(ml==dn?dn.__h=[]:(e.__h.some(ra),e.__h.some(hc),fa=0),e.__h=[],e.__.some(function(t){t.__N&&(t.__=t.__N),t.u=t.__N=void 0})),ml=dn},on.diffed=function(n){wf&&wf(n);var e=n.__c;e&&e.__H&&(e.__H.__h.length&&Lf(zd.push(e)),e.__H.__.some(function(t){t.u&&(t.__H=t.u)})),ml=dn=null},on.__c=function(n,e){e.some(function(t){try{t.__h.some(ra),t.__h=t.__h.filter(function(i){return!i.__||hc(i)})}catch(i){t.__h=[function(){throw i}]}}),Af&&Af(n,e)},on.unmount=function(n){Rf&&Rf(n);var e,t,i=n.__c;i&&i.__H&&(i.__H.__.some(function(s){try{if(s.__P&&s.__c){if(t===void 0){for(t=n.__;t&&(!t.__c||!t.__c.__P);)t=t.__;t=t&&t.__c}s.__P=t,Lf(uc.push(s))}else ra(s)}catch(r){e=r}}),i.__H=void 0,e&&on.__e(e,i.__v))};var Pf=typeof requestAnimationFrame=="function";function dg(n){var e,t=function(){clearTimeout(i),Pf&&cancelAnimationFrame(e),setTimeout(n)},i=setTimeout(t,35);Pf&&(e=requestAnimationFrame(t))}function Lf(n){n!=1&&Ef==on.requestAnimationFrame||((Ef=on.requestAnimationFrame)||dg)(hg)}function ra(n){var e=dn,t=n.__c;typeof t=="function"&&(n.__c=void 0,t()),dn=e}function hc(n){var e=dn;n.__c=n.__(),dn=e}function Gd(n,e){return!n||n.length!=e.length||e.some(function(t,i){return!cc(t,n[i])})}function Hd(n,e){return typeof e=="function"?e(n):e}const Eu="187",pg=0,Df=1,mg=2,go=1,gg=2,jr=3,Us=0,Bn=1,Pi=2,gr=0,_r=1,dc=2,Nf=3,If=4,_g=5,dr=100,vg=101,xg=102,Sg=103,Mg=104,yg=200,Eg=201,Tg=202,bg=203,Vd=204,Wd=205,wg=206,Ag=207,Rg=208,Cg=209,Pg=210,Lg=211,Dg=212,Ng=213,Ig=214,pc=0,mc=1,gc=2,ha=3,_c=4,vc=5,xc=6,Sc=7,Xd=0,Ug=1,Fg=2,Zi=0,qd=1,Yd=2,$d=3,Kd=4,Zd=5,Jd=6,Qd=7,jd=300,Mr=301,da=302,gl=303,_l=304,Mc=1e3,$i=1001,yc=1002,pn=1003,Og=1004,La=1005,On=1006,vl=1007,ms=1008,ni=1009,ep=1010,tp=1011,pa=1012,Tu=1013,Ui=1014,Li=1015,_i=1016,bu=1017,wu=1018,yr=1020,np=35902,ip=35899,sp=1021,rp=1022,Di=1023,xs=1026,gs=1027,ap=1028,Au=1029,Fs=1030,Ru=1031,Cu=1033,_o=33776,vo=33777,xo=33778,So=33779,Ec=35840,Tc=35841,bc=35842,wc=35843,Ac=36196,Rc=37492,Cc=37496,Pc=37488,Lc=37489,Co=37490,Dc=37491,Nc=37808,Ic=37809,Uc=37810,Fc=37811,Oc=37812,Bc=37813,zc=37814,kc=37815,Gc=37816,Hc=37817,Vc=37818,Wc=37819,Xc=37820,qc=37821,Yc=36492,$c=36494,Kc=36495,Zc=36283,Jc=36284,Po=36285,Qc=36286,Bg=3200,Uf=0,zg=1,ps="",ei="srgb",Lo="srgb-linear",Do="linear",At="srgb",xl=7680,kg=519,Gg=512,Hg=513,Vg=514,op=515,Wg=516,Xg=517,lp=518,cp=519,qg=35044,Yg=35048,No="300 es",gi=2e3,Io=2001;function $g(n){for(let e=n.length-1;e>=0;--e)if(n[e]>=65535)return!0;return!1}function Uo(n){return document.createElementNS("http://www.w3.org/1999/xhtml",n)}function Kg(){const n=Uo("canvas");return n.style.display="block",n}const Ff={};function Of(...n){const e="THREE."+n.shift();console.log(e,...n)}function up(n){const e=n[0];if(typeof e=="string"&&e.startsWith("TSL:")){const t=n[1];t&&t.isStackTrace?n[0]+=" "+t.getLocation():n[1]='Stack trace not available. Enable "THREE.Node.captureStackTrace" to capture stack traces.'}return n}function Je(...n){n=up(n);const e="THREE."+n.shift();{const t=n[0];t&&t.isStackTrace?console.warn(t.getError(e)):console.warn(e,...n)}}function Mt(...n){n=up(n);const e="THREE."+n.shift();{const t=n[0];t&&t.isStackTrace?console.error(t.getError(e)):console.error(e,...n)}}function Mo(...n){const e=n.join(" ");e in Ff||(Ff[e]=!0,Je(...n))}function Zg(n,e,t){return new Promise(function(i,s){function r(){switch(n.clientWaitSync(e,n.SYNC_FLUSH_COMMANDS_BIT,0)){case n.WAIT_FAILED:s();break;case n.TIMEOUT_EXPIRED:setTimeout(r,t);break;default:i()}}setTimeout(r,t)})}const Jg={[pc]:pc,[gc]:xc,[_c]:_c,[ha]:vc,[mc]:mc,[xc]:gc,[Sc]:Sc,[vc]:ha};class Gs{addEventListener(e,t){this._listeners===void 0&&(this._listeners={});const i=this._listeners;i[e]===void 0&&(i[e]=[]),i[e].indexOf(t)===-1&&i[e].push(t)}hasEventListener(e,t){const i=this._listeners;return i===void 0?!1:i[e]!==void 0&&i[e].indexOf(t)!==-1}removeEventListener(e,t){const i=this._listeners;if(i===void 0)return;const s=i[e];if(s!==void 0){const r=s.indexOf(t);r!==-1&&s.splice(r,1)}}dispatchEvent(e){const t=this._listeners;if(t===void 0)return;const i=t[e.type];if(i!==void 0){e.target=this;const s=i.slice(0);for(let r=0,a=s.length;r<a;r++)s[r].call(this,e);e.target=null}}}const wn=["00","01","02","03","04","05","06","07","08","09","0a","0b","0c","0d","0e","0f","10","11","12","13","14","15","16","17","18","19","1a","1b","1c","1d","1e","1f","20","21","22","23","24","25","26","27","28","29","2a","2b","2c","2d","2e","2f","30","31","32","33","34","35","36","37","38","39","3a","3b","3c","3d","3e","3f","40","41","42","43","44","45","46","47","48","49","4a","4b","4c","4d","4e","4f","50","51","52","53","54","55","56","57","58","59","5a","5b","5c","5d","5e","5f","60","61","62","63","64","65","66","67","68","69","6a","6b","6c","6d","6e","6f","70","71","72","73","74","75","76","77","78","79","7a","7b","7c","7d","7e","7f","80","81","82","83","84","85","86","87","88","89","8a","8b","8c","8d","8e","8f","90","91","92","93","94","95","96","97","98","99","9a","9b","9c","9d","9e","9f","a0","a1","a2","a3","a4","a5","a6","a7","a8","a9","aa","ab","ac","ad","ae","af","b0","b1","b2","b3","b4","b5","b6","b7","b8","b9","ba","bb","bc","bd","be","bf","c0","c1","c2","c3","c4","c5","c6","c7","c8","c9","ca","cb","cc","cd","ce","cf","d0","d1","d2","d3","d4","d5","d6","d7","d8","d9","da","db","dc","dd","de","df","e0","e1","e2","e3","e4","e5","e6","e7","e8","e9","ea","eb","ec","ed","ee","ef","f0","f1","f2","f3","f4","f5","f6","f7","f8","f9","fa","fb","fc","fd","fe","ff"],Sl=Math.PI/180,jc=180/Math.PI;function Lr(){const n=Math.random()*4294967295|0,e=Math.random()*4294967295|0,t=Math.random()*4294967295|0,i=Math.random()*4294967295|0;return(wn[n&255]+wn[n>>8&255]+wn[n>>16&255]+wn[n>>24&255]+"-"+wn[e&255]+wn[e>>8&255]+"-"+wn[e>>16&15|64]+wn[e>>24&255]+"-"+wn[t&63|128]+wn[t>>8&255]+"-"+wn[t>>16&255]+wn[t>>24&255]+wn[i&255]+wn[i>>8&255]+wn[i>>16&255]+wn[i>>24&255]).toLowerCase()}function ht(n,e,t){return Math.max(e,Math.min(t,n))}function Qg(n,e){return(n%e+e)%e}function Ml(n,e,t){return(1-t)*n+t*e}function jg(n){return Math.pow(2,Math.floor(Math.log(n)/Math.LN2))}function Pu(n){switch(n.constructor){case Uint32Array:return 4294967295;case Uint16Array:return 65535;case Uint8Array:case Uint8ClampedArray:return 255;case Int32Array:return 2147483647;case Int16Array:return 32767;case Int8Array:return 127;default:return}}function e_(n,e){if(e.constructor===Float32Array)return n;const t=Pu(e);if(t===void 0)throw new Error("THREE.MathUtils: Invalid component type.");return Math.max(n/t,-1)}function t_(n,e){if(e.constructor===Float32Array)return n;const t=Pu(e);if(t===void 0)throw new Error("THREE.MathUtils: Invalid component type.");return Math.round(n*t)}class Ve{static{this.prototype.isVector2=!0}constructor(e=0,t=0){this.x=e,this.y=t}get width(){return this.x}set width(e){this.x=e}get height(){return this.y}set height(e){this.y=e}set(e,t){return this.x=e,this.y=t,this}setScalar(e){return this.x=e,this.y=e,this}setX(e){return this.x=e,this}setY(e){return this.y=e,this}setComponent(e,t){switch(e){case 0:this.x=t;break;case 1:this.y=t;break;default:throw new Error("THREE.Vector2: index is out of range: "+e)}return this}getComponent(e){switch(e){case 0:return this.x;case 1:return this.y;default:throw new Error("THREE.Vector2: index is out of range: "+e)}}clone(){return new this.constructor(this.x,this.y)}copy(e){return this.x=e.x,this.y=e.y,this}add(e){return this.x+=e.x,this.y+=e.y,this}addScalar(e){return this.x+=e,this.y+=e,this}addVectors(e,t){return this.x=e.x+t.x,this.y=e.y+t.y,this}addScaledVector(e,t){return this.x+=e.x*t,this.y+=e.y*t,this}sub(e){return this.x-=e.x,this.y-=e.y,this}subScalar(e){return this.x-=e,this.y-=e,this}subVectors(e,t){return this.x=e.x-t.x,this.y=e.y-t.y,this}multiply(e){return this.x*=e.x,this.y*=e.y,this}multiplyScalar(e){return this.x*=e,this.y*=e,this}divide(e){return this.x/=e.x,this.y/=e.y,this}divideScalar(e){return this.multiplyScalar(1/e)}applyMatrix3(e){const t=this.x,i=this.y,s=e.elements;return this.x=s[0]*t+s[3]*i+s[6],this.y=s[1]*t+s[4]*i+s[7],this}min(e){return this.x=Math.min(this.x,e.x),this.y=Math.min(this.y,e.y),this}max(e){return this.x=Math.max(this.x,e.x),this.y=Math.max(this.y,e.y),this}clamp(e,t){return this.x=ht(this.x,e.x,t.x),this.y=ht(this.y,e.y,t.y),this}clampScalar(e,t){return this.x=ht(this.x,e,t),this.y=ht(this.y,e,t),this}clampLength(e,t){const i=this.length();return this.divideScalar(i||1).multiplyScalar(ht(i,e,t))}floor(){return this.x=Math.floor(this.x),this.y=Math.floor(this.y),this}ceil(){return this.x=Math.ceil(this.x),this.y=Math.ceil(this.y),this}round(){return this.x=Math.round(this.x),this.y=Math.round(this.y),this}roundToZero(){return this.x=Math.trunc(this.x),this.y=Math.trunc(this.y),this}negate(){return this.x=-this.x,this.y=-this.y,this}dot(e){return this.x*e.x+this.y*e.y}cross(e){return this.x*e.y-this.y*e.x}lengthSq(){return this.x*this.x+this.y*this.y}length(){return Math.sqrt(this.x*this.x+this.y*this.y)}manhattanLength(){return Math.abs(this.x)+Math.abs(this.y)}normalize(){return this.divideScalar(this.length()||1)}angle(){return Math.atan2(-this.y,-this.x)+Math.PI}angleTo(e){const t=Math.sqrt(this.lengthSq()*e.lengthSq());if(t===0)return Math.PI/2;const i=this.dot(e)/t;return Math.acos(ht(i,-1,1))}distanceTo(e){return Math.sqrt(this.distanceToSquared(e))}distanceToSquared(e){const t=this.x-e.x,i=this.y-e.y;return t*t+i*i}manhattanDistanceTo(e){return Math.abs(this.x-e.x)+Math.abs(this.y-e.y)}setLength(e){return this.normalize().multiplyScalar(e)}lerp(e,t){return this.x+=(e.x-this.x)*t,this.y+=(e.y-this.y)*t,this}lerpVectors(e,t,i){return this.x=e.x+(t.x-e.x)*i,this.y=e.y+(t.y-e.y)*i,this}equals(e){return e.x===this.x&&e.y===this.y}fromArray(e,t=0){return this.x=e[t],this.y=e[t+1],this}toArray(e=[],t=0){return e[t]=this.x,e[t+1]=this.y,e}fromBufferAttribute(e,t){return this.x=e.getX(t),this.y=e.getY(t),this}rotateAround(e,t){const i=Math.cos(t),s=Math.sin(t),r=this.x-e.x,a=this.y-e.y;return this.x=r*i-a*s+e.x,this.y=r*s+a*i+e.y,this}random(){return this.x=Math.random(),this.y=Math.random(),this}*[Symbol.iterator](){yield this.x,yield this.y}}class Dr{constructor(e=0,t=0,i=0,s=1){this.isQuaternion=!0,this._x=e,this._y=t,this._z=i,this._w=s}static slerpFlat(e,t,i,s,r,a,o){let l=i[s+0],c=i[s+1],u=i[s+2],d=i[s+3],f=r[a+0],h=r[a+1],g=r[a+2],M=r[a+3];if(d!==M||l!==f||c!==h||u!==g){let p=l*f+c*h+u*g+d*M;p<0&&(f=-f,h=-h,g=-g,M=-M,p=-p);let m=1-o;if(p<.9995){const x=Math.acos(p),A=Math.sin(x);m=Math.sin(m*x)/A,o=Math.sin(o*x)/A,l=l*m+f*o,c=c*m+h*o,u=u*m+g*o,d=d*m+M*o}else{l=l*m+f*o,c=c*m+h*o,u=u*m+g*o,d=d*m+M*o;const x=1/Math.sqrt(l*l+c*c+u*u+d*d);l*=x,c*=x,u*=x,d*=x}}e[t]=l,e[t+1]=c,e[t+2]=u,e[t+3]=d}static multiplyQuaternionsFlat(e,t,i,s,r,a){const o=i[s],l=i[s+1],c=i[s+2],u=i[s+3],d=r[a],f=r[a+1],h=r[a+2],g=r[a+3];return e[t]=o*g+u*d+l*h-c*f,e[t+1]=l*g+u*f+c*d-o*h,e[t+2]=c*g+u*h+o*f-l*d,e[t+3]=u*g-o*d-l*f-c*h,e}get x(){return this._x}set x(e){this._x=e,this._onChangeCallback()}get y(){return this._y}set y(e){this._y=e,this._onChangeCallback()}get z(){return this._z}set z(e){this._z=e,this._onChangeCallback()}get w(){return this._w}set w(e){this._w=e,this._onChangeCallback()}set(e,t,i,s){return this._x=e,this._y=t,this._z=i,this._w=s,this._onChangeCallback(),this}clone(){return new this.constructor(this._x,this._y,this._z,this._w)}copy(e){return this._x=e.x,this._y=e.y,this._z=e.z,this._w=e.w,this._onChangeCallback(),this}setFromEuler(e,t=!0){const i=e._x,s=e._y,r=e._z,a=e._order,o=Math.cos,l=Math.sin,c=o(i/2),u=o(s/2),d=o(r/2),f=l(i/2),h=l(s/2),g=l(r/2);switch(a){case"XYZ":this._x=f*u*d+c*h*g,this._y=c*h*d-f*u*g,this._z=c*u*g+f*h*d,this._w=c*u*d-f*h*g;break;case"YXZ":this._x=f*u*d+c*h*g,this._y=c*h*d-f*u*g,this._z=c*u*g-f*h*d,this._w=c*u*d+f*h*g;break;case"ZXY":this._x=f*u*d-c*h*g,this._y=c*h*d+f*u*g,this._z=c*u*g+f*h*d,this._w=c*u*d-f*h*g;break;case"ZYX":this._x=f*u*d-c*h*g,this._y=c*h*d+f*u*g,this._z=c*u*g-f*h*d,this._w=c*u*d+f*h*g;break;case"YZX":this._x=f*u*d+c*h*g,this._y=c*h*d+f*u*g,this._z=c*u*g-f*h*d,this._w=c*u*d-f*h*g;break;case"XZY":this._x=f*u*d-c*h*g,this._y=c*h*d-f*u*g,this._z=c*u*g+f*h*d,this._w=c*u*d+f*h*g;break;default:Je("Quaternion: .setFromEuler() encountered an unknown order: "+a)}return t===!0&&this._onChangeCallback(),this}setFromAxisAngle(e,t){const i=t/2,s=Math.sin(i);return this._x=e.x*s,this._y=e.y*s,this._z=e.z*s,this._w=Math.cos(i),this._onChangeCallback(),this}setFromRotationMatrix(e){const t=e.elements,i=t[0],s=t[4],r=t[8],a=t[1],o=t[5],l=t[9],c=t[2],u=t[6],d=t[10],f=i+o+d;if(f>0){const h=.5/Math.sqrt(f+1);this._w=.25/h,this._x=(u-l)*h,this._y=(r-c)*h,this._z=(a-s)*h}else if(i>o&&i>d){const h=2*Math.sqrt(1+i-o-d);this._w=(u-l)/h,this._x=.25*h,this._y=(s+a)/h,this._z=(r+c)/h}else if(o>d){const h=2*Math.sqrt(1+o-i-d);this._w=(r-c)/h,this._x=(s+a)/h,this._y=.25*h,this._z=(l+u)/h}else{const h=2*Math.sqrt(1+d-i-o);this._w=(a-s)/h,this._x=(r+c)/h,this._y=(l+u)/h,this._z=.25*h}return this._onChangeCallback(),this}setFromUnitVectors(e,t){let i=e.dot(t)+1;return i<1e-8?(i=0,Math.abs(e.x)>Math.abs(e.z)?(this._x=-e.y,this._y=e.x,this._z=0,this._w=i):(this._x=0,this._y=-e.z,this._z=e.y,this._w=i)):(this._x=e.y*t.z-e.z*t.y,this._y=e.z*t.x-e.x*t.z,this._z=e.x*t.y-e.y*t.x,this._w=i),this.normalize()}angleTo(e){return 2*Math.acos(Math.abs(ht(this.dot(e),-1,1)))}rotateTowards(e,t){const i=this.angleTo(e);if(i===0)return this;const s=Math.min(1,t/i);return this.slerp(e,s),this}identity(){return this.set(0,0,0,1)}invert(){return this.conjugate()}conjugate(){return this._x*=-1,this._y*=-1,this._z*=-1,this._onChangeCallback(),this}dot(e){return this._x*e._x+this._y*e._y+this._z*e._z+this._w*e._w}lengthSq(){return this._x*this._x+this._y*this._y+this._z*this._z+this._w*this._w}length(){return Math.sqrt(this._x*this._x+this._y*this._y+this._z*this._z+this._w*this._w)}normalize(){let e=this.length();return e===0?(this._x=0,this._y=0,this._z=0,this._w=1):(e=1/e,this._x=this._x*e,this._y=this._y*e,this._z=this._z*e,this._w=this._w*e),this._onChangeCallback(),this}multiply(e){return this.multiplyQuaternions(this,e)}premultiply(e){return this.multiplyQuaternions(e,this)}multiplyQuaternions(e,t){const i=e._x,s=e._y,r=e._z,a=e._w,o=t._x,l=t._y,c=t._z,u=t._w;return this._x=i*u+a*o+s*c-r*l,this._y=s*u+a*l+r*o-i*c,this._z=r*u+a*c+i*l-s*o,this._w=a*u-i*o-s*l-r*c,this._onChangeCallback(),this}slerp(e,t){let i=e._x,s=e._y,r=e._z,a=e._w,o=this.dot(e);o<0&&(i=-i,s=-s,r=-r,a=-a,o=-o);let l=1-t;if(o<.9995){const c=Math.acos(o),u=Math.sin(c);l=Math.sin(l*c)/u,t=Math.sin(t*c)/u,this._x=this._x*l+i*t,this._y=this._y*l+s*t,this._z=this._z*l+r*t,this._w=this._w*l+a*t,this._onChangeCallback()}else this._x=this._x*l+i*t,this._y=this._y*l+s*t,this._z=this._z*l+r*t,this._w=this._w*l+a*t,this.normalize();return this}slerpQuaternions(e,t,i){return this.copy(e).slerp(t,i)}random(){const e=2*Math.PI*Math.random(),t=2*Math.PI*Math.random(),i=Math.random(),s=Math.sqrt(1-i),r=Math.sqrt(i);return this.set(s*Math.sin(e),s*Math.cos(e),r*Math.sin(t),r*Math.cos(t))}equals(e){return e._x===this._x&&e._y===this._y&&e._z===this._z&&e._w===this._w}fromArray(e,t=0){return this._x=e[t],this._y=e[t+1],this._z=e[t+2],this._w=e[t+3],this._onChangeCallback(),this}toArray(e=[],t=0){return e[t]=this._x,e[t+1]=this._y,e[t+2]=this._z,e[t+3]=this._w,e}fromBufferAttribute(e,t){return this._x=e.getX(t),this._y=e.getY(t),this._z=e.getZ(t),this._w=e.getW(t),this._onChangeCallback(),this}toJSON(){return this.toArray()}_onChange(e){return this._onChangeCallback=e,this}_onChangeCallback(){}*[Symbol.iterator](){yield this._x,yield this._y,yield this._z,yield this._w}}class W{static{this.prototype.isVector3=!0}constructor(e=0,t=0,i=0){this.x=e,this.y=t,this.z=i}set(e,t,i){return i===void 0&&(i=this.z),this.x=e,this.y=t,this.z=i,this}setScalar(e){return this.x=e,this.y=e,this.z=e,this}setX(e){return this.x=e,this}setY(e){return this.y=e,this}setZ(e){return this.z=e,this}setComponent(e,t){switch(e){case 0:this.x=t;break;case 1:this.y=t;break;case 2:this.z=t;break;default:throw new Error("THREE.Vector3: index is out of range: "+e)}return this}getComponent(e){switch(e){case 0:return this.x;case 1:return this.y;case 2:return this.z;default:throw new Error("THREE.Vector3: index is out of range: "+e)}}clone(){return new this.constructor(this.x,this.y,this.z)}copy(e){return this.x=e.x,this.y=e.y,this.z=e.z,this}add(e){return this.x+=e.x,this.y+=e.y,this.z+=e.z,this}addScalar(e){return this.x+=e,this.y+=e,this.z+=e,this}addVectors(e,t){return this.x=e.x+t.x,this.y=e.y+t.y,this.z=e.z+t.z,this}addScaledVector(e,t){return this.x+=e.x*t,this.y+=e.y*t,this.z+=e.z*t,this}sub(e){return this.x-=e.x,this.y-=e.y,this.z-=e.z,this}subScalar(e){return this.x-=e,this.y-=e,this.z-=e,this}subVectors(e,t){return this.x=e.x-t.x,this.y=e.y-t.y,this.z=e.z-t.z,this}multiply(e){return this.x*=e.x,this.y*=e.y,this.z*=e.z,this}multiplyScalar(e){return this.x*=e,this.y*=e,this.z*=e,this}multiplyVectors(e,t){return this.x=e.x*t.x,this.y=e.y*t.y,this.z=e.z*t.z,this}applyEuler(e){return this.applyQuaternion(Bf.setFromEuler(e))}applyAxisAngle(e,t){return this.applyQuaternion(Bf.setFromAxisAngle(e,t))}applyMatrix3(e){const t=this.x,i=this.y,s=this.z,r=e.elements;return this.x=r[0]*t+r[3]*i+r[6]*s,this.y=r[1]*t+r[4]*i+r[7]*s,this.z=r[2]*t+r[5]*i+r[8]*s,this}applyNormalMatrix(e){return this.applyMatrix3(e).normalize()}applyMatrix4(e){const t=this.x,i=this.y,s=this.z,r=e.elements,a=1/(r[3]*t+r[7]*i+r[11]*s+r[15]);return this.x=(r[0]*t+r[4]*i+r[8]*s+r[12])*a,this.y=(r[1]*t+r[5]*i+r[9]*s+r[13])*a,this.z=(r[2]*t+r[6]*i+r[10]*s+r[14])*a,this}applyQuaternion(e){const t=this.x,i=this.y,s=this.z,r=e.x,a=e.y,o=e.z,l=e.w,c=2*(a*s-o*i),u=2*(o*t-r*s),d=2*(r*i-a*t);return this.x=t+l*c+a*d-o*u,this.y=i+l*u+o*c-r*d,this.z=s+l*d+r*u-a*c,this}project(e){return this.applyMatrix4(e.matrixWorldInverse).applyMatrix4(e.projectionMatrix)}unproject(e){return this.applyMatrix4(e.projectionMatrixInverse).applyMatrix4(e.matrixWorld)}transformDirection(e){const t=this.x,i=this.y,s=this.z,r=e.elements;return this.x=r[0]*t+r[4]*i+r[8]*s,this.y=r[1]*t+r[5]*i+r[9]*s,this.z=r[2]*t+r[6]*i+r[10]*s,this.normalize()}divide(e){return this.x/=e.x,this.y/=e.y,this.z/=e.z,this}divideScalar(e){return this.multiplyScalar(1/e)}min(e){return this.x=Math.min(this.x,e.x),this.y=Math.min(this.y,e.y),this.z=Math.min(this.z,e.z),this}max(e){return this.x=Math.max(this.x,e.x),this.y=Math.max(this.y,e.y),this.z=Math.max(this.z,e.z),this}clamp(e,t){return this.x=ht(this.x,e.x,t.x),this.y=ht(this.y,e.y,t.y),this.z=ht(this.z,e.z,t.z),this}clampScalar(e,t){return this.x=ht(this.x,e,t),this.y=ht(this.y,e,t),this.z=ht(this.z,e,t),this}clampLength(e,t){const i=this.length();return this.divideScalar(i||1).multiplyScalar(ht(i,e,t))}floor(){return this.x=Math.floor(this.x),this.y=Math.floor(this.y),this.z=Math.floor(this.z),this}ceil(){return this.x=Math.ceil(this.x),this.y=Math.ceil(this.y),this.z=Math.ceil(this.z),this}round(){return this.x=Math.round(this.x),this.y=Math.round(this.y),this.z=Math.round(this.z),this}roundToZero(){return this.x=Math.trunc(this.x),this.y=Math.trunc(this.y),this.z=Math.trunc(this.z),this}negate(){return this.x=-this.x,this.y=-this.y,this.z=-this.z,this}dot(e){return this.x*e.x+this.y*e.y+this.z*e.z}lengthSq(){return this.x*this.x+this.y*this.y+this.z*this.z}length(){return Math.sqrt(this.x*this.x+this.y*this.y+this.z*this.z)}manhattanLength(){return Math.abs(this.x)+Math.abs(this.y)+Math.abs(this.z)}normalize(){return this.divideScalar(this.length()||1)}setLength(e){return this.normalize().multiplyScalar(e)}lerp(e,t){return this.x+=(e.x-this.x)*t,this.y+=(e.y-this.y)*t,this.z+=(e.z-this.z)*t,this}lerpVectors(e,t,i){return this.x=e.x+(t.x-e.x)*i,this.y=e.y+(t.y-e.y)*i,this.z=e.z+(t.z-e.z)*i,this}cross(e){return this.crossVectors(this,e)}crossVectors(e,t){const i=e.x,s=e.y,r=e.z,a=t.x,o=t.y,l=t.z;return this.x=s*l-r*o,this.y=r*a-i*l,this.z=i*o-s*a,this}projectOnVector(e){const t=e.lengthSq();if(t===0)return this.set(0,0,0);const i=e.dot(this)/t;return this.copy(e).multiplyScalar(i)}projectOnPlane(e){return yl.copy(this).projectOnVector(e),this.sub(yl)}reflect(e){return this.sub(yl.copy(e).multiplyScalar(2*this.dot(e)))}angleTo(e){const t=Math.sqrt(this.lengthSq()*e.lengthSq());if(t===0)return Math.PI/2;const i=this.dot(e)/t;return Math.acos(ht(i,-1,1))}distanceTo(e){return Math.sqrt(this.distanceToSquared(e))}distanceToSquared(e){const t=this.x-e.x,i=this.y-e.y,s=this.z-e.z;return t*t+i*i+s*s}manhattanDistanceTo(e){return Math.abs(this.x-e.x)+Math.abs(this.y-e.y)+Math.abs(this.z-e.z)}setFromSpherical(e){return this.setFromSphericalCoords(e.radius,e.phi,e.theta)}setFromSphericalCoords(e,t,i){const s=Math.sin(t)*e;return this.x=s*Math.sin(i),this.y=Math.cos(t)*e,this.z=s*Math.cos(i),this}setFromCylindrical(e){return this.setFromCylindricalCoords(e.radius,e.theta,e.y)}setFromCylindricalCoords(e,t,i){return this.x=e*Math.sin(t),this.y=i,this.z=e*Math.cos(t),this}setFromMatrixPosition(e){const t=e.elements;return this.x=t[12],this.y=t[13],this.z=t[14],this}setFromMatrixScale(e){const t=this.setFromMatrixColumn(e,0).length(),i=this.setFromMatrixColumn(e,1).length(),s=this.setFromMatrixColumn(e,2).length();return this.x=t,this.y=i,this.z=s,this}setFromMatrixColumn(e,t){return this.fromArray(e.elements,t*4)}setFromMatrix3Column(e,t){return this.fromArray(e.elements,t*3)}setFromEuler(e){return this.x=e._x,this.y=e._y,this.z=e._z,this}setFromColor(e){return this.x=e.r,this.y=e.g,this.z=e.b,this}equals(e){return e.x===this.x&&e.y===this.y&&e.z===this.z}fromArray(e,t=0){return this.x=e[t],this.y=e[t+1],this.z=e[t+2],this}toArray(e=[],t=0){return e[t]=this.x,e[t+1]=this.y,e[t+2]=this.z,e}fromBufferAttribute(e,t){return this.x=e.getX(t),this.y=e.getY(t),this.z=e.getZ(t),this}random(){return this.x=Math.random(),this.y=Math.random(),this.z=Math.random(),this}randomDirection(){const e=Math.random()*Math.PI*2,t=Math.random()*2-1,i=Math.sqrt(1-t*t);return this.x=i*Math.cos(e),this.y=t,this.z=i*Math.sin(e),this}*[Symbol.iterator](){yield this.x,yield this.y,yield this.z}}const yl=new W,Bf=new Dr;class it{static{this.prototype.isMatrix3=!0}constructor(e,t,i,s,r,a,o,l,c){this.elements=[1,0,0,0,1,0,0,0,1],e!==void 0&&this.set(e,t,i,s,r,a,o,l,c)}set(e,t,i,s,r,a,o,l,c){const u=this.elements;return u[0]=e,u[1]=s,u[2]=o,u[3]=t,u[4]=r,u[5]=l,u[6]=i,u[7]=a,u[8]=c,this}identity(){return this.set(1,0,0,0,1,0,0,0,1),this}copy(e){const t=this.elements,i=e.elements;return t[0]=i[0],t[1]=i[1],t[2]=i[2],t[3]=i[3],t[4]=i[4],t[5]=i[5],t[6]=i[6],t[7]=i[7],t[8]=i[8],this}extractBasis(e,t,i){return e.setFromMatrix3Column(this,0),t.setFromMatrix3Column(this,1),i.setFromMatrix3Column(this,2),this}setFromMatrix4(e){const t=e.elements;return this.set(t[0],t[4],t[8],t[1],t[5],t[9],t[2],t[6],t[10]),this}multiply(e){return this.multiplyMatrices(this,e)}premultiply(e){return this.multiplyMatrices(e,this)}multiplyMatrices(e,t){const i=e.elements,s=t.elements,r=this.elements,a=i[0],o=i[3],l=i[6],c=i[1],u=i[4],d=i[7],f=i[2],h=i[5],g=i[8],M=s[0],p=s[3],m=s[6],x=s[1],A=s[4],S=s[7],R=s[2],w=s[5],_=s[8];return r[0]=a*M+o*x+l*R,r[3]=a*p+o*A+l*w,r[6]=a*m+o*S+l*_,r[1]=c*M+u*x+d*R,r[4]=c*p+u*A+d*w,r[7]=c*m+u*S+d*_,r[2]=f*M+h*x+g*R,r[5]=f*p+h*A+g*w,r[8]=f*m+h*S+g*_,this}multiplyScalar(e){const t=this.elements;return t[0]*=e,t[3]*=e,t[6]*=e,t[1]*=e,t[4]*=e,t[7]*=e,t[2]*=e,t[5]*=e,t[8]*=e,this}determinant(){const e=this.elements,t=e[0],i=e[1],s=e[2],r=e[3],a=e[4],o=e[5],l=e[6],c=e[7],u=e[8];return t*a*u-t*o*c-i*r*u+i*o*l+s*r*c-s*a*l}invert(){const e=this.elements,t=e[0],i=e[1],s=e[2],r=e[3],a=e[4],o=e[5],l=e[6],c=e[7],u=e[8],d=u*a-o*c,f=o*l-u*r,h=c*r-a*l,g=t*d+i*f+s*h;if(g===0)return this.set(0,0,0,0,0,0,0,0,0);const M=1/g;return e[0]=d*M,e[1]=(s*c-u*i)*M,e[2]=(o*i-s*a)*M,e[3]=f*M,e[4]=(u*t-s*l)*M,e[5]=(s*r-o*t)*M,e[6]=h*M,e[7]=(i*l-c*t)*M,e[8]=(a*t-i*r)*M,this}transpose(){let e;const t=this.elements;return e=t[1],t[1]=t[3],t[3]=e,e=t[2],t[2]=t[6],t[6]=e,e=t[5],t[5]=t[7],t[7]=e,this}getNormalMatrix(e){return this.setFromMatrix4(e).invert().transpose()}transposeIntoArray(e){const t=this.elements;return e[0]=t[0],e[1]=t[3],e[2]=t[6],e[3]=t[1],e[4]=t[4],e[5]=t[7],e[6]=t[2],e[7]=t[5],e[8]=t[8],this}setUvTransform(e,t,i,s,r,a,o){const l=Math.cos(r),c=Math.sin(r);return this.set(i*l,i*c,-i*(l*a+c*o)+a+e,-s*c,s*l,-s*(-c*a+l*o)+o+t,0,0,1),this}scale(e,t){return Mo("Matrix3: .scale() is deprecated. Use .makeScale() instead."),this.premultiply(El.makeScale(e,t)),this}rotate(e){return Mo("Matrix3: .rotate() is deprecated. Use .makeRotation() instead."),this.premultiply(El.makeRotation(-e)),this}translate(e,t){return Mo("Matrix3: .translate() is deprecated. Use .makeTranslation() instead."),this.premultiply(El.makeTranslation(e,t)),this}makeTranslation(e,t){return e.isVector2?this.set(1,0,e.x,0,1,e.y,0,0,1):this.set(1,0,e,0,1,t,0,0,1),this}makeRotation(e){const t=Math.cos(e),i=Math.sin(e);return this.set(t,-i,0,i,t,0,0,0,1),this}makeScale(e,t){return this.set(e,0,0,0,t,0,0,0,1),this}equals(e){const t=this.elements,i=e.elements;for(let s=0;s<9;s++)if(t[s]!==i[s])return!1;return!0}fromArray(e,t=0){for(let i=0;i<9;i++)this.elements[i]=e[i+t];return this}toArray(e=[],t=0){const i=this.elements;return e[t]=i[0],e[t+1]=i[1],e[t+2]=i[2],e[t+3]=i[3],e[t+4]=i[4],e[t+5]=i[5],e[t+6]=i[6],e[t+7]=i[7],e[t+8]=i[8],e}clone(){return new this.constructor().fromArray(this.elements)}}const El=new it,zf=new it().set(.4123908,.3575843,.1804808,.212639,.7151687,.0721923,.0193308,.1191948,.9505322),kf=new it().set(3.2409699,-1.5373832,-.4986108,-.9692436,1.8759675,.0415551,.0556301,-.203977,1.0569715);function n_(){const n={enabled:!0,workingColorSpace:Lo,spaces:{},convert:function(s,r,a){return this.enabled===!1||r===a||!r||!a||(this.spaces[r].transfer===At&&(s.r=Ji(s.r),s.g=Ji(s.g),s.b=Ji(s.b)),this.spaces[r].primaries!==this.spaces[a].primaries&&(s.applyMatrix3(this.spaces[r].toXYZ),s.applyMatrix3(this.spaces[a].fromXYZ)),this.spaces[a].transfer===At&&(s.r=vr(s.r),s.g=vr(s.g),s.b=vr(s.b))),s},workingToColorSpace:function(s,r){return this.convert(s,this.workingColorSpace,r)},colorSpaceToWorking:function(s,r){return this.convert(s,r,this.workingColorSpace)},getPrimaries:function(s){return this.spaces[s].primaries},getTransfer:function(s){return s===ps?Do:this.spaces[s].transfer},getToneMappingMode:function(s){return this.spaces[s].outputColorSpaceConfig.toneMappingMode||"standard"},getLuminanceCoefficients:function(s,r=this.workingColorSpace){return s.fromArray(this.spaces[r].luminanceCoefficients)},define:function(s){Object.assign(this.spaces,s)},_getMatrix:function(s,r,a){return s.copy(this.spaces[a].fromXYZ).multiply(this.spaces[r].toXYZ)},_getDrawingBufferColorSpace:function(s){return this.spaces[s].outputColorSpaceConfig.drawingBufferColorSpace},_getUnpackColorSpace:function(s=this.workingColorSpace){return this.spaces[s].workingColorSpaceConfig.unpackColorSpace}},e=[.64,.33,.3,.6,.15,.06],t=[.2126,.7152,.0722],i=[.3127,.329];return n.define({[Lo]:{primaries:e,whitePoint:i,transfer:Do,toXYZ:zf,fromXYZ:kf,luminanceCoefficients:t,workingColorSpaceConfig:{unpackColorSpace:ei},outputColorSpaceConfig:{drawingBufferColorSpace:ei}},[ei]:{primaries:e,whitePoint:i,transfer:At,toXYZ:zf,fromXYZ:kf,luminanceCoefficients:t,outputColorSpaceConfig:{drawingBufferColorSpace:ei}}}),n}const mt=n_();function Ji(n){return n<.04045?n*.0773993808:Math.pow(n*.9478672986+.0521327014,2.4)}function vr(n){return n<.0031308?n*12.92:1.055*Math.pow(n,.41666)-.055}let er;class i_{static getDataURL(e,t="image/png"){if(/^data:/i.test(e.src)||typeof HTMLCanvasElement>"u")return e.src;let i;if(e instanceof HTMLCanvasElement)i=e;else{er===void 0&&(er=Uo("canvas")),er.width=e.width,er.height=e.height;const s=er.getContext("2d");e instanceof ImageData?s.putImageData(e,0,0):s.drawImage(e,0,0,e.width,e.height),i=er}return i.toDataURL(t)}static sRGBToLinear(e){if(typeof HTMLImageElement<"u"&&e instanceof HTMLImageElement||typeof HTMLCanvasElement<"u"&&e instanceof HTMLCanvasElement||typeof ImageBitmap<"u"&&e instanceof ImageBitmap){const t=Uo("canvas");t.width=e.width,t.height=e.height;const i=t.getContext("2d");i.drawImage(e,0,0,e.width,e.height);const s=i.getImageData(0,0,e.width,e.height),r=s.data;for(let a=0;a<r.length;a++)r[a]=Ji(r[a]/255)*255;return i.putImageData(s,0,0),t}else if(e.data){const t=e.data.slice(0);for(let i=0;i<t.length;i++)t instanceof Uint8Array||t instanceof Uint8ClampedArray?t[i]=Math.floor(Ji(t[i]/255)*255):t[i]=Ji(t[i]);return{data:t,width:e.width,height:e.height}}else return Je("ImageUtils.sRGBToLinear(): Unsupported image type. No color space conversion applied."),e}}let s_=0;class Lu{constructor(e=null){this.isTextureSource=!0,Object.defineProperty(this,"id",{value:s_++}),this.uuid=Lr(),this.data=e,this.dataReady=!0,this.version=0}getSize(e){const t=this.data;return typeof HTMLVideoElement<"u"&&t instanceof HTMLVideoElement?e.set(t.videoWidth,t.videoHeight,0):typeof VideoFrame<"u"&&t instanceof VideoFrame?e.set(t.displayWidth,t.displayHeight,0):t!==null?e.set(t.width||0,t.height||0,t.depth||0):e.set(0,0,0),e}set needsUpdate(e){e===!0&&this.version++}toJSON(e){const t=e===void 0||typeof e=="string";if(!t&&e.images[this.uuid]!==void 0)return e.images[this.uuid];const i={uuid:this.uuid,url:""},s=this.data;if(s!==null){let r;if(Array.isArray(s)){r=[];for(let a=0,o=s.length;a<o;a++)s[a].isDataTexture?r.push(Tl(s[a].image)):r.push(Tl(s[a]))}else r=Tl(s);i.url=r}return t||(e.images[this.uuid]=i),i}}function Tl(n){return typeof HTMLImageElement<"u"&&n instanceof HTMLImageElement||typeof HTMLCanvasElement<"u"&&n instanceof HTMLCanvasElement||typeof ImageBitmap<"u"&&n instanceof ImageBitmap?i_.getDataURL(n):n.data?{data:Array.from(n.data),width:n.width,height:n.height,type:n.data.constructor.name}:(Je("Texture: Unable to serialize Texture."),{})}let r_=0;const bl=new W;class Fn extends Gs{constructor(e=Fn.DEFAULT_IMAGE,t=Fn.DEFAULT_MAPPING,i=$i,s=$i,r=On,a=ms,o=Di,l=ni,c=Fn.DEFAULT_ANISOTROPY,u=ps){super(),this.isTexture=!0,Object.defineProperty(this,"id",{value:r_++}),this.uuid=Lr(),this.name="",this.source=new Lu(e),this.mipmaps=[],this.mapping=t,this.channel=0,this.wrapS=i,this.wrapT=s,this.magFilter=r,this.minFilter=a,this.anisotropy=c,this.format=o,this.internalFormat=null,this.type=l,this.offset=new Ve(0,0),this.repeat=new Ve(1,1),this.center=new Ve(0,0),this.rotation=0,this.matrixAutoUpdate=!0,this.matrix=new it,this.generateMipmaps=!0,this.mipmapsAutoUpdate=!0,this.premultiplyAlpha=!1,this.flipY=!0,this.unpackAlignment=4,this.colorSpace=u,this.userData={},this.updateRanges=[],this.version=0,this.onUpdate=null,this.renderTarget=null,this.isRenderTargetTexture=!1,this.isArrayTexture=!!(e&&e.depth&&e.depth>1),this.pmremVersion=0,this.isPMREMTexture=!1,this.normalized=!1}get width(){return this.source.getSize(bl).x}get height(){return this.source.getSize(bl).y}get depth(){return this.source.getSize(bl).z}get image(){return this.source.data}set image(e){this.source.data=e}updateMatrix(){this.matrix.setUvTransform(this.offset.x,this.offset.y,this.repeat.x,this.repeat.y,this.rotation,this.center.x,this.center.y)}addUpdateRange(e,t){this.updateRanges.push({start:e,count:t})}clearUpdateRanges(){this.updateRanges.length=0}clone(){return new this.constructor().copy(this)}copy(e){return this.name=e.name,this.source=e.source,this.mipmaps=e.mipmaps.slice(0),this.mapping=e.mapping,this.channel=e.channel,this.wrapS=e.wrapS,this.wrapT=e.wrapT,this.magFilter=e.magFilter,this.minFilter=e.minFilter,this.anisotropy=e.anisotropy,this.format=e.format,this.internalFormat=e.internalFormat,this.type=e.type,this.normalized=e.normalized,this.offset.copy(e.offset),this.repeat.copy(e.repeat),this.center.copy(e.center),this.rotation=e.rotation,this.matrixAutoUpdate=e.matrixAutoUpdate,this.matrix.copy(e.matrix),this.generateMipmaps=e.generateMipmaps,this.mipmapsAutoUpdate=e.mipmapsAutoUpdate,this.premultiplyAlpha=e.premultiplyAlpha,this.flipY=e.flipY,this.unpackAlignment=e.unpackAlignment,this.colorSpace=e.colorSpace,this.renderTarget=e.renderTarget,this.isRenderTargetTexture=e.isRenderTargetTexture,this.isPMREMTexture=e.isPMREMTexture,this.isArrayTexture=e.isArrayTexture,this.userData=JSON.parse(JSON.stringify(e.userData)),this.needsUpdate=!0,this}setValues(e){for(const t in e){const i=e[t];if(i===void 0){Je(`Texture.setValues(): parameter '${t}' has value of undefined.`);continue}const s=this[t];if(s===void 0){Je(`Texture.setValues(): property '${t}' does not exist.`);continue}s&&i&&s.isVector2&&i.isVector2||s&&i&&s.isVector3&&i.isVector3||s&&i&&s.isMatrix3&&i.isMatrix3?s.copy(i):this[t]=i}}toJSON(e){const t=e===void 0||typeof e=="string";if(!t&&e.textures[this.uuid]!==void 0)return e.textures[this.uuid];const i={metadata:{version:4.7,type:"Texture",generator:"Texture.toJSON"},uuid:this.uuid,name:this.name,image:this.source.toJSON(e).uuid,mapping:this.mapping,channel:this.channel,repeat:[this.repeat.x,this.repeat.y],offset:[this.offset.x,this.offset.y],center:[this.center.x,this.center.y],rotation:this.rotation,wrap:[this.wrapS,this.wrapT],format:this.format,internalFormat:this.internalFormat,type:this.type,normalized:this.normalized,colorSpace:this.colorSpace,minFilter:this.minFilter,magFilter:this.magFilter,anisotropy:this.anisotropy,flipY:this.flipY,generateMipmaps:this.generateMipmaps,mipmapsAutoUpdate:this.mipmapsAutoUpdate,premultiplyAlpha:this.premultiplyAlpha,unpackAlignment:this.unpackAlignment};return Object.keys(this.userData).length>0&&(i.userData=this.userData),t||(e.textures[this.uuid]=i),i}dispose(){this.dispatchEvent({type:"dispose"})}transformUv(e){if(this.mapping!==jd)return e;if(e.applyMatrix3(this.matrix),e.x<0||e.x>1)switch(this.wrapS){case Mc:e.x=e.x-Math.floor(e.x);break;case $i:e.x=e.x<0?0:1;break;case yc:Math.abs(Math.floor(e.x)%2)===1?e.x=Math.ceil(e.x)-e.x:e.x=e.x-Math.floor(e.x);break}if(e.y<0||e.y>1)switch(this.wrapT){case Mc:e.y=e.y-Math.floor(e.y);break;case $i:e.y=e.y<0?0:1;break;case yc:Math.abs(Math.floor(e.y)%2)===1?e.y=Math.ceil(e.y)-e.y:e.y=e.y-Math.floor(e.y);break}return this.flipY&&(e.y=1-e.y),e}set needsUpdate(e){e===!0&&(this.version++,this.source.needsUpdate=!0)}set needsPMREMUpdate(e){e===!0&&this.pmremVersion++}}Fn.DEFAULT_IMAGE=null;Fn.DEFAULT_MAPPING=jd;Fn.DEFAULT_ANISOTROPY=1;class ln{static{this.prototype.isVector4=!0}constructor(e=0,t=0,i=0,s=1){this.x=e,this.y=t,this.z=i,this.w=s}get width(){return this.z}set width(e){this.z=e}get height(){return this.w}set height(e){this.w=e}set(e,t,i,s){return this.x=e,this.y=t,this.z=i,this.w=s,this}setScalar(e){return this.x=e,this.y=e,this.z=e,this.w=e,this}setX(e){return this.x=e,this}setY(e){return this.y=e,this}setZ(e){return this.z=e,this}setW(e){return this.w=e,this}setComponent(e,t){switch(e){case 0:this.x=t;break;case 1:this.y=t;break;case 2:this.z=t;break;case 3:this.w=t;break;default:throw new Error("THREE.Vector4: index is out of range: "+e)}return this}getComponent(e){switch(e){case 0:return this.x;case 1:return this.y;case 2:return this.z;case 3:return this.w;default:throw new Error("THREE.Vector4: index is out of range: "+e)}}clone(){return new this.constructor(this.x,this.y,this.z,this.w)}copy(e){return this.x=e.x,this.y=e.y,this.z=e.z,this.w=e.w!==void 0?e.w:1,this}add(e){return this.x+=e.x,this.y+=e.y,this.z+=e.z,this.w+=e.w,this}addScalar(e){return this.x+=e,this.y+=e,this.z+=e,this.w+=e,this}addVectors(e,t){return this.x=e.x+t.x,this.y=e.y+t.y,this.z=e.z+t.z,this.w=e.w+t.w,this}addScaledVector(e,t){return this.x+=e.x*t,this.y+=e.y*t,this.z+=e.z*t,this.w+=e.w*t,this}sub(e){return this.x-=e.x,this.y-=e.y,this.z-=e.z,this.w-=e.w,this}subScalar(e){return this.x-=e,this.y-=e,this.z-=e,this.w-=e,this}subVectors(e,t){return this.x=e.x-t.x,this.y=e.y-t.y,this.z=e.z-t.z,this.w=e.w-t.w,this}multiply(e){return this.x*=e.x,this.y*=e.y,this.z*=e.z,this.w*=e.w,this}multiplyScalar(e){return this.x*=e,this.y*=e,this.z*=e,this.w*=e,this}applyMatrix4(e){const t=this.x,i=this.y,s=this.z,r=this.w,a=e.elements;return this.x=a[0]*t+a[4]*i+a[8]*s+a[12]*r,this.y=a[1]*t+a[5]*i+a[9]*s+a[13]*r,this.z=a[2]*t+a[6]*i+a[10]*s+a[14]*r,this.w=a[3]*t+a[7]*i+a[11]*s+a[15]*r,this}divide(e){return this.x/=e.x,this.y/=e.y,this.z/=e.z,this.w/=e.w,this}divideScalar(e){return this.multiplyScalar(1/e)}setAxisAngleFromQuaternion(e){this.w=2*Math.acos(e.w);const t=Math.sqrt(1-e.w*e.w);return t<1e-4?(this.x=1,this.y=0,this.z=0):(this.x=e.x/t,this.y=e.y/t,this.z=e.z/t),this}setAxisAngleFromRotationMatrix(e){let t,i,s,r;const l=e.elements,c=l[0],u=l[4],d=l[8],f=l[1],h=l[5],g=l[9],M=l[2],p=l[6],m=l[10];if(Math.abs(u-f)<.01&&Math.abs(d-M)<.01&&Math.abs(g-p)<.01){if(Math.abs(u+f)<.1&&Math.abs(d+M)<.1&&Math.abs(g+p)<.1&&Math.abs(c+h+m-3)<.1)return this.set(1,0,0,0),this;t=Math.PI;const A=(c+1)/2,S=(h+1)/2,R=(m+1)/2,w=(u+f)/4,_=(d+M)/4,b=(g+p)/4;return A>S&&A>R?A<.01?(i=0,s=.707106781,r=.707106781):(i=Math.sqrt(A),s=w/i,r=_/i):S>R?S<.01?(i=.707106781,s=0,r=.707106781):(s=Math.sqrt(S),i=w/s,r=b/s):R<.01?(i=.707106781,s=.707106781,r=0):(r=Math.sqrt(R),i=_/r,s=b/r),this.set(i,s,r,t),this}let x=Math.sqrt((p-g)*(p-g)+(d-M)*(d-M)+(f-u)*(f-u));return Math.abs(x)<.001&&(x=1),this.x=(p-g)/x,this.y=(d-M)/x,this.z=(f-u)/x,this.w=Math.acos((c+h+m-1)/2),this}setFromMatrixPosition(e){const t=e.elements;return this.x=t[12],this.y=t[13],this.z=t[14],this.w=t[15],this}min(e){return this.x=Math.min(this.x,e.x),this.y=Math.min(this.y,e.y),this.z=Math.min(this.z,e.z),this.w=Math.min(this.w,e.w),this}max(e){return this.x=Math.max(this.x,e.x),this.y=Math.max(this.y,e.y),this.z=Math.max(this.z,e.z),this.w=Math.max(this.w,e.w),this}clamp(e,t){return this.x=ht(this.x,e.x,t.x),this.y=ht(this.y,e.y,t.y),this.z=ht(this.z,e.z,t.z),this.w=ht(this.w,e.w,t.w),this}clampScalar(e,t){return this.x=ht(this.x,e,t),this.y=ht(this.y,e,t),this.z=ht(this.z,e,t),this.w=ht(this.w,e,t),this}clampLength(e,t){const i=this.length();return this.divideScalar(i||1).multiplyScalar(ht(i,e,t))}floor(){return this.x=Math.floor(this.x),this.y=Math.floor(this.y),this.z=Math.floor(this.z),this.w=Math.floor(this.w),this}ceil(){return this.x=Math.ceil(this.x),this.y=Math.ceil(this.y),this.z=Math.ceil(this.z),this.w=Math.ceil(this.w),this}round(){return this.x=Math.round(this.x),this.y=Math.round(this.y),this.z=Math.round(this.z),this.w=Math.round(this.w),this}roundToZero(){return this.x=Math.trunc(this.x),this.y=Math.trunc(this.y),this.z=Math.trunc(this.z),this.w=Math.trunc(this.w),this}negate(){return this.x=-this.x,this.y=-this.y,this.z=-this.z,this.w=-this.w,this}dot(e){return this.x*e.x+this.y*e.y+this.z*e.z+this.w*e.w}lengthSq(){return this.x*this.x+this.y*this.y+this.z*this.z+this.w*this.w}length(){return Math.sqrt(this.x*this.x+this.y*this.y+this.z*this.z+this.w*this.w)}manhattanLength(){return Math.abs(this.x)+Math.abs(this.y)+Math.abs(this.z)+Math.abs(this.w)}normalize(){return this.divideScalar(this.length()||1)}setLength(e){return this.normalize().multiplyScalar(e)}lerp(e,t){return this.x+=(e.x-this.x)*t,this.y+=(e.y-this.y)*t,this.z+=(e.z-this.z)*t,this.w+=(e.w-this.w)*t,this}lerpVectors(e,t,i){return this.x=e.x+(t.x-e.x)*i,this.y=e.y+(t.y-e.y)*i,this.z=e.z+(t.z-e.z)*i,this.w=e.w+(t.w-e.w)*i,this}equals(e){return e.x===this.x&&e.y===this.y&&e.z===this.z&&e.w===this.w}fromArray(e,t=0){return this.x=e[t],this.y=e[t+1],this.z=e[t+2],this.w=e[t+3],this}toArray(e=[],t=0){return e[t]=this.x,e[t+1]=this.y,e[t+2]=this.z,e[t+3]=this.w,e}fromBufferAttribute(e,t){return this.x=e.getX(t),this.y=e.getY(t),this.z=e.getZ(t),this.w=e.getW(t),this}random(){return this.x=Math.random(),this.y=Math.random(),this.z=Math.random(),this.w=Math.random(),this}*[Symbol.iterator](){yield this.x,yield this.y,yield this.z,yield this.w}}class a_ extends Gs{constructor(e=1,t=1,i={}){super(),i=Object.assign({generateMipmaps:!1,internalFormat:null,minFilter:On,depthBuffer:!0,stencilBuffer:!1,resolveColorBuffer:!0,resolveDepthBuffer:!0,resolveStencilBuffer:!0,storeMultisampledColorBuffer:!0,storeMultisampledDepthBuffer:!0,storeMultisampledStencilBuffer:!0,depthTexture:null,samples:0,count:1,depth:1,multiview:!1,useArrayDepthTexture:!1},i),this.isRenderTarget=!0,this.width=e,this.height=t,this.depth=i.depth,this.scissor=new ln(0,0,e,t),this.scissorTest=!1,this.viewport=new ln(0,0,e,t),this.textures=[];const s=i.count;for(let r=0;r<s;r++)this.textures[r]=new Fn({width:e,height:t,depth:i.depth}),this.textures[r].isRenderTargetTexture=!0,this.textures[r].renderTarget=this;this._setTextureOptions(i),this.depthBuffer=i.depthBuffer,this.stencilBuffer=i.stencilBuffer,this.resolveColorBuffer=i.resolveColorBuffer,this.resolveDepthBuffer=i.resolveDepthBuffer,this.resolveStencilBuffer=i.resolveStencilBuffer,this.storeMultisampledColorBuffer=i.storeMultisampledColorBuffer,this.storeMultisampledDepthBuffer=i.storeMultisampledDepthBuffer,this.storeMultisampledStencilBuffer=i.storeMultisampledStencilBuffer,this._depthTexture=null,this.depthTexture=i.depthTexture,this.samples=i.samples,this.multiview=i.multiview,this.useArrayDepthTexture=i.useArrayDepthTexture}_setTextureOptions(e={}){const t={minFilter:On,generateMipmaps:!1,flipY:!1,internalFormat:null};e.mapping!==void 0&&(t.mapping=e.mapping),e.wrapS!==void 0&&(t.wrapS=e.wrapS),e.wrapT!==void 0&&(t.wrapT=e.wrapT),e.wrapR!==void 0&&(t.wrapR=e.wrapR),e.magFilter!==void 0&&(t.magFilter=e.magFilter),e.minFilter!==void 0&&(t.minFilter=e.minFilter),e.format!==void 0&&(t.format=e.format),e.type!==void 0&&(t.type=e.type),e.anisotropy!==void 0&&(t.anisotropy=e.anisotropy),e.colorSpace!==void 0&&(t.colorSpace=e.colorSpace),e.flipY!==void 0&&(t.flipY=e.flipY),e.generateMipmaps!==void 0&&(t.generateMipmaps=e.generateMipmaps),e.mipmapsAutoUpdate!==void 0&&(t.mipmapsAutoUpdate=e.mipmapsAutoUpdate),e.internalFormat!==void 0&&(t.internalFormat=e.internalFormat);for(let i=0;i<this.textures.length;i++)this.textures[i].setValues(t)}get texture(){return this.textures[0]}set texture(e){this.textures[0]=e}set depthTexture(e){this._depthTexture!==null&&this._depthTexture.renderTarget===this&&(this._depthTexture.renderTarget=null),e!==null&&e.renderTarget===null&&(e.renderTarget=this),this._depthTexture=e}get depthTexture(){return this._depthTexture}setSize(e,t,i=1){if(this.width!==e||this.height!==t||this.depth!==i){this.width=e,this.height=t,this.depth=i;for(let s=0,r=this.textures.length;s<r;s++)this.textures[s].image.width=e,this.textures[s].image.height=t,this.textures[s].image.depth=i,this.textures[s].isData3DTexture!==!0&&(this.textures[s].isArrayTexture=this.textures[s].image.depth>1);this.dispose()}this.viewport.set(0,0,e,t),this.scissor.set(0,0,e,t)}clone(){return new this.constructor().copy(this)}copy(e){this.width=e.width,this.height=e.height,this.depth=e.depth,this.scissor.copy(e.scissor),this.scissorTest=e.scissorTest,this.viewport.copy(e.viewport),this.textures.length=0;for(let t=0,i=e.textures.length;t<i;t++){this.textures[t]=e.textures[t].clone(),this.textures[t].isRenderTargetTexture=!0,this.textures[t].renderTarget=this;const s=Object.assign({},e.textures[t].image);this.textures[t].source=new Lu(s)}if(this.depthBuffer=e.depthBuffer,this.stencilBuffer=e.stencilBuffer,this.resolveColorBuffer=e.resolveColorBuffer,this.resolveDepthBuffer=e.resolveDepthBuffer,this.resolveStencilBuffer=e.resolveStencilBuffer,this.storeMultisampledColorBuffer=e.storeMultisampledColorBuffer,this.storeMultisampledDepthBuffer=e.storeMultisampledDepthBuffer,this.storeMultisampledStencilBuffer=e.storeMultisampledStencilBuffer,e.depthTexture!==null)if(e.depthTexture.renderTarget===e){const t=e.depthTexture.clone();t.renderTarget=null,this.depthTexture=t}else this.depthTexture=e.depthTexture;else this.depthTexture=null;return this.samples=e.samples,this.multiview=e.multiview,this.useArrayDepthTexture=e.useArrayDepthTexture,this}dispose(){this.dispatchEvent({type:"dispose"})}}class ii extends a_{constructor(e=1,t=1,i={}){super(e,t,i),this.isWebGLRenderTarget=!0}}class fp extends Fn{constructor(e=null,t=1,i=1,s=1){super(null),this.isDataArrayTexture=!0,this.image={data:e,width:t,height:i,depth:s},this.magFilter=pn,this.minFilter=pn,this.wrapR=$i,this.generateMipmaps=!1,this.flipY=!1,this.unpackAlignment=1,this.layerUpdates=new Set}copy(e){return super.copy(e),this.wrapR=e.wrapR,this}addLayerUpdate(e){this.layerUpdates.add(e)}clearLayerUpdates(){this.layerUpdates.clear()}}class o_ extends Fn{constructor(e=null,t=1,i=1,s=1){super(null),this.isData3DTexture=!0,this.image={data:e,width:t,height:i,depth:s},this.magFilter=pn,this.minFilter=pn,this.wrapR=$i,this.generateMipmaps=!1,this.flipY=!1,this.unpackAlignment=1}copy(e){return super.copy(e),this.wrapR=e.wrapR,this}}class Wt{static{this.prototype.isMatrix4=!0}constructor(e,t,i,s,r,a,o,l,c,u,d,f,h,g,M,p){this.elements=[1,0,0,0,0,1,0,0,0,0,1,0,0,0,0,1],e!==void 0&&this.set(e,t,i,s,r,a,o,l,c,u,d,f,h,g,M,p)}set(e,t,i,s,r,a,o,l,c,u,d,f,h,g,M,p){const m=this.elements;return m[0]=e,m[4]=t,m[8]=i,m[12]=s,m[1]=r,m[5]=a,m[9]=o,m[13]=l,m[2]=c,m[6]=u,m[10]=d,m[14]=f,m[3]=h,m[7]=g,m[11]=M,m[15]=p,this}identity(){return this.set(1,0,0,0,0,1,0,0,0,0,1,0,0,0,0,1),this}clone(){return new Wt().fromArray(this.elements)}copy(e){const t=this.elements,i=e.elements;return t[0]=i[0],t[1]=i[1],t[2]=i[2],t[3]=i[3],t[4]=i[4],t[5]=i[5],t[6]=i[6],t[7]=i[7],t[8]=i[8],t[9]=i[9],t[10]=i[10],t[11]=i[11],t[12]=i[12],t[13]=i[13],t[14]=i[14],t[15]=i[15],this}copyPosition(e){const t=this.elements,i=e.elements;return t[12]=i[12],t[13]=i[13],t[14]=i[14],this}setFromMatrix3(e){const t=e.elements;return this.set(t[0],t[3],t[6],0,t[1],t[4],t[7],0,t[2],t[5],t[8],0,0,0,0,1),this}extractBasis(e,t,i){return this.determinantAffine()===0?(e.set(1,0,0),t.set(0,1,0),i.set(0,0,1),this):(e.setFromMatrixColumn(this,0),t.setFromMatrixColumn(this,1),i.setFromMatrixColumn(this,2),this)}makeBasis(e,t,i){return this.set(e.x,t.x,i.x,0,e.y,t.y,i.y,0,e.z,t.z,i.z,0,0,0,0,1),this}extractRotation(e){if(e.determinantAffine()===0)return this.identity();const t=this.elements,i=e.elements,s=1/tr.setFromMatrixColumn(e,0).length(),r=1/tr.setFromMatrixColumn(e,1).length(),a=1/tr.setFromMatrixColumn(e,2).length();return t[0]=i[0]*s,t[1]=i[1]*s,t[2]=i[2]*s,t[3]=0,t[4]=i[4]*r,t[5]=i[5]*r,t[6]=i[6]*r,t[7]=0,t[8]=i[8]*a,t[9]=i[9]*a,t[10]=i[10]*a,t[11]=0,t[12]=0,t[13]=0,t[14]=0,t[15]=1,this}makeRotationFromEuler(e){const t=this.elements,i=e.x,s=e.y,r=e.z,a=Math.cos(i),o=Math.sin(i),l=Math.cos(s),c=Math.sin(s),u=Math.cos(r),d=Math.sin(r);if(e.order==="XYZ"){const f=a*u,h=a*d,g=o*u,M=o*d;t[0]=l*u,t[4]=-l*d,t[8]=c,t[1]=h+g*c,t[5]=f-M*c,t[9]=-o*l,t[2]=M-f*c,t[6]=g+h*c,t[10]=a*l}else if(e.order==="YXZ"){const f=l*u,h=l*d,g=c*u,M=c*d;t[0]=f+M*o,t[4]=g*o-h,t[8]=a*c,t[1]=a*d,t[5]=a*u,t[9]=-o,t[2]=h*o-g,t[6]=M+f*o,t[10]=a*l}else if(e.order==="ZXY"){const f=l*u,h=l*d,g=c*u,M=c*d;t[0]=f-M*o,t[4]=-a*d,t[8]=g+h*o,t[1]=h+g*o,t[5]=a*u,t[9]=M-f*o,t[2]=-a*c,t[6]=o,t[10]=a*l}else if(e.order==="ZYX"){const f=a*u,h=a*d,g=o*u,M=o*d;t[0]=l*u,t[4]=g*c-h,t[8]=f*c+M,t[1]=l*d,t[5]=M*c+f,t[9]=h*c-g,t[2]=-c,t[6]=o*l,t[10]=a*l}else if(e.order==="YZX"){const f=a*l,h=a*c,g=o*l,M=o*c;t[0]=l*u,t[4]=M-f*d,t[8]=g*d+h,t[1]=d,t[5]=a*u,t[9]=-o*u,t[2]=-c*u,t[6]=h*d+g,t[10]=f-M*d}else if(e.order==="XZY"){const f=a*l,h=a*c,g=o*l,M=o*c;t[0]=l*u,t[4]=-d,t[8]=c*u,t[1]=f*d+M,t[5]=a*u,t[9]=h*d-g,t[2]=g*d-h,t[6]=o*u,t[10]=M*d+f}return t[3]=0,t[7]=0,t[11]=0,t[12]=0,t[13]=0,t[14]=0,t[15]=1,this}makeRotationFromQuaternion(e){return this.compose(l_,e,c_)}lookAt(e,t,i){const s=this.elements;return Wn.subVectors(e,t),Wn.lengthSq()===0&&(Wn.z=1),Wn.normalize(),as.crossVectors(i,Wn),as.lengthSq()===0&&(Math.abs(i.z)===1?Wn.x+=1e-4:Wn.z+=1e-4,Wn.normalize(),as.crossVectors(i,Wn)),as.normalize(),Da.crossVectors(Wn,as),s[0]=as.x,s[4]=Da.x,s[8]=Wn.x,s[1]=as.y,s[5]=Da.y,s[9]=Wn.y,s[2]=as.z,s[6]=Da.z,s[10]=Wn.z,this}multiply(e){return this.multiplyMatrices(this,e)}premultiply(e){return this.multiplyMatrices(e,this)}multiplyMatrices(e,t){const i=e.elements,s=t.elements,r=this.elements,a=i[0],o=i[4],l=i[8],c=i[12],u=i[1],d=i[5],f=i[9],h=i[13],g=i[2],M=i[6],p=i[10],m=i[14],x=i[3],A=i[7],S=i[11],R=i[15],w=s[0],_=s[4],b=s[8],z=s[12],N=s[1],L=s[5],G=s[9],k=s[13],I=s[2],V=s[6],Z=s[10],B=s[14],ce=s[3],K=s[7],Q=s[11],ie=s[15];return r[0]=a*w+o*N+l*I+c*ce,r[4]=a*_+o*L+l*V+c*K,r[8]=a*b+o*G+l*Z+c*Q,r[12]=a*z+o*k+l*B+c*ie,r[1]=u*w+d*N+f*I+h*ce,r[5]=u*_+d*L+f*V+h*K,r[9]=u*b+d*G+f*Z+h*Q,r[13]=u*z+d*k+f*B+h*ie,r[2]=g*w+M*N+p*I+m*ce,r[6]=g*_+M*L+p*V+m*K,r[10]=g*b+M*G+p*Z+m*Q,r[14]=g*z+M*k+p*B+m*ie,r[3]=x*w+A*N+S*I+R*ce,r[7]=x*_+A*L+S*V+R*K,r[11]=x*b+A*G+S*Z+R*Q,r[15]=x*z+A*k+S*B+R*ie,this}multiplyScalar(e){const t=this.elements;return t[0]*=e,t[4]*=e,t[8]*=e,t[12]*=e,t[1]*=e,t[5]*=e,t[9]*=e,t[13]*=e,t[2]*=e,t[6]*=e,t[10]*=e,t[14]*=e,t[3]*=e,t[7]*=e,t[11]*=e,t[15]*=e,this}determinant(){const e=this.elements,t=e[0],i=e[4],s=e[8],r=e[12],a=e[1],o=e[5],l=e[9],c=e[13],u=e[2],d=e[6],f=e[10],h=e[14],g=e[3],M=e[7],p=e[11],m=e[15],x=l*h-c*f,A=o*h-c*d,S=o*f-l*d,R=a*h-c*u,w=a*f-l*u,_=a*d-o*u;return t*(M*x-p*A+m*S)-i*(g*x-p*R+m*w)+s*(g*A-M*R+m*_)-r*(g*S-M*w+p*_)}determinantAffine(){const e=this.elements,t=e[0],i=e[4],s=e[8],r=e[1],a=e[5],o=e[9],l=e[2],c=e[6],u=e[10];return t*(a*u-o*c)-i*(r*u-o*l)+s*(r*c-a*l)}transpose(){const e=this.elements;let t;return t=e[1],e[1]=e[4],e[4]=t,t=e[2],e[2]=e[8],e[8]=t,t=e[6],e[6]=e[9],e[9]=t,t=e[3],e[3]=e[12],e[12]=t,t=e[7],e[7]=e[13],e[13]=t,t=e[11],e[11]=e[14],e[14]=t,this}setPosition(e,t,i){const s=this.elements;return e.isVector3?(s[12]=e.x,s[13]=e.y,s[14]=e.z):(s[12]=e,s[13]=t,s[14]=i),this}invert(){const e=this.elements,t=e[0],i=e[1],s=e[2],r=e[3],a=e[4],o=e[5],l=e[6],c=e[7],u=e[8],d=e[9],f=e[10],h=e[11],g=e[12],M=e[13],p=e[14],m=e[15],x=t*o-i*a,A=t*l-s*a,S=t*c-r*a,R=i*l-s*o,w=i*c-r*o,_=s*c-r*l,b=u*M-d*g,z=u*p-f*g,N=u*m-h*g,L=d*p-f*M,G=d*m-h*M,k=f*m-h*p,I=x*k-A*G+S*L+R*N-w*z+_*b;if(I===0)return this.set(0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0);const V=1/I;return e[0]=(o*k-l*G+c*L)*V,e[1]=(s*G-i*k-r*L)*V,e[2]=(M*_-p*w+m*R)*V,e[3]=(f*w-d*_-h*R)*V,e[4]=(l*N-a*k-c*z)*V,e[5]=(t*k-s*N+r*z)*V,e[6]=(p*S-g*_-m*A)*V,e[7]=(u*_-f*S+h*A)*V,e[8]=(a*G-o*N+c*b)*V,e[9]=(i*N-t*G-r*b)*V,e[10]=(g*w-M*S+m*x)*V,e[11]=(d*S-u*w-h*x)*V,e[12]=(o*z-a*L-l*b)*V,e[13]=(t*L-i*z+s*b)*V,e[14]=(M*A-g*R-p*x)*V,e[15]=(u*R-d*A+f*x)*V,this}scale(e){const t=this.elements,i=e.x,s=e.y,r=e.z;return t[0]*=i,t[4]*=s,t[8]*=r,t[1]*=i,t[5]*=s,t[9]*=r,t[2]*=i,t[6]*=s,t[10]*=r,t[3]*=i,t[7]*=s,t[11]*=r,this}getMaxScaleOnAxis(){const e=this.elements,t=e[0]*e[0]+e[1]*e[1]+e[2]*e[2],i=e[4]*e[4]+e[5]*e[5]+e[6]*e[6],s=e[8]*e[8]+e[9]*e[9]+e[10]*e[10];return Math.sqrt(Math.max(t,i,s))}makeTranslation(e,t,i){return e.isVector3?this.set(1,0,0,e.x,0,1,0,e.y,0,0,1,e.z,0,0,0,1):this.set(1,0,0,e,0,1,0,t,0,0,1,i,0,0,0,1),this}makeRotationX(e){const t=Math.cos(e),i=Math.sin(e);return this.set(1,0,0,0,0,t,-i,0,0,i,t,0,0,0,0,1),this}makeRotationY(e){const t=Math.cos(e),i=Math.sin(e);return this.set(t,0,i,0,0,1,0,0,-i,0,t,0,0,0,0,1),this}makeRotationZ(e){const t=Math.cos(e),i=Math.sin(e);return this.set(t,-i,0,0,i,t,0,0,0,0,1,0,0,0,0,1),this}makeRotationAxis(e,t){const i=Math.cos(t),s=Math.sin(t),r=1-i,a=e.x,o=e.y,l=e.z,c=r*a,u=r*o;return this.set(c*a+i,c*o-s*l,c*l+s*o,0,c*o+s*l,u*o+i,u*l-s*a,0,c*l-s*o,u*l+s*a,r*l*l+i,0,0,0,0,1),this}makeScale(e,t,i){return this.set(e,0,0,0,0,t,0,0,0,0,i,0,0,0,0,1),this}makeShear(e,t,i,s,r,a){return this.set(1,i,r,0,e,1,a,0,t,s,1,0,0,0,0,1),this}compose(e,t,i){const s=this.elements,r=t._x,a=t._y,o=t._z,l=t._w,c=r+r,u=a+a,d=o+o,f=r*c,h=r*u,g=r*d,M=a*u,p=a*d,m=o*d,x=l*c,A=l*u,S=l*d,R=i.x,w=i.y,_=i.z;return s[0]=(1-(M+m))*R,s[1]=(h+S)*R,s[2]=(g-A)*R,s[3]=0,s[4]=(h-S)*w,s[5]=(1-(f+m))*w,s[6]=(p+x)*w,s[7]=0,s[8]=(g+A)*_,s[9]=(p-x)*_,s[10]=(1-(f+M))*_,s[11]=0,s[12]=e.x,s[13]=e.y,s[14]=e.z,s[15]=1,this}decompose(e,t,i){const s=this.elements;e.x=s[12],e.y=s[13],e.z=s[14];const r=this.determinantAffine();if(r===0)return i.set(1,1,1),t.identity(),this;let a=tr.set(s[0],s[1],s[2]).length();const o=tr.set(s[4],s[5],s[6]).length(),l=tr.set(s[8],s[9],s[10]).length();r<0&&(a=-a),li.copy(this);const c=1/a,u=1/o,d=1/l;return li.elements[0]*=c,li.elements[1]*=c,li.elements[2]*=c,li.elements[4]*=u,li.elements[5]*=u,li.elements[6]*=u,li.elements[8]*=d,li.elements[9]*=d,li.elements[10]*=d,t.setFromRotationMatrix(li),i.x=a,i.y=o,i.z=l,this}makePerspective(e,t,i,s,r,a,o=gi,l=!1){const c=this.elements,u=2*r/(t-e),d=2*r/(i-s),f=(t+e)/(t-e),h=(i+s)/(i-s);let g,M;if(l)g=r/(a-r),M=a*r/(a-r);else if(o===gi)g=-(a+r)/(a-r),M=-2*a*r/(a-r);else if(o===Io)g=-a/(a-r),M=-a*r/(a-r);else throw new Error("THREE.Matrix4.makePerspective(): Invalid coordinate system: "+o);return c[0]=u,c[4]=0,c[8]=f,c[12]=0,c[1]=0,c[5]=d,c[9]=h,c[13]=0,c[2]=0,c[6]=0,c[10]=g,c[14]=M,c[3]=0,c[7]=0,c[11]=-1,c[15]=0,this}makeOrthographic(e,t,i,s,r,a,o=gi,l=!1){const c=this.elements,u=2/(t-e),d=2/(i-s),f=-(t+e)/(t-e),h=-(i+s)/(i-s);let g,M;if(l)g=1/(a-r),M=a/(a-r);else if(o===gi)g=-2/(a-r),M=-(a+r)/(a-r);else if(o===Io)g=-1/(a-r),M=-r/(a-r);else throw new Error("THREE.Matrix4.makeOrthographic(): Invalid coordinate system: "+o);return c[0]=u,c[4]=0,c[8]=0,c[12]=f,c[1]=0,c[5]=d,c[9]=0,c[13]=h,c[2]=0,c[6]=0,c[10]=g,c[14]=M,c[3]=0,c[7]=0,c[11]=0,c[15]=1,this}equals(e){const t=this.elements,i=e.elements;for(let s=0;s<16;s++)if(t[s]!==i[s])return!1;return!0}fromArray(e,t=0){for(let i=0;i<16;i++)this.elements[i]=e[i+t];return this}toArray(e=[],t=0){const i=this.elements;return e[t]=i[0],e[t+1]=i[1],e[t+2]=i[2],e[t+3]=i[3],e[t+4]=i[4],e[t+5]=i[5],e[t+6]=i[6],e[t+7]=i[7],e[t+8]=i[8],e[t+9]=i[9],e[t+10]=i[10],e[t+11]=i[11],e[t+12]=i[12],e[t+13]=i[13],e[t+14]=i[14],e[t+15]=i[15],e}}const tr=new W,li=new Wt,l_=new W(0,0,0),c_=new W(1,1,1),as=new W,Da=new W,Wn=new W,Gf=new Wt,Hf=new Dr;class Os{constructor(e=0,t=0,i=0,s=Os.DEFAULT_ORDER){this.isEuler=!0,this._x=e,this._y=t,this._z=i,this._order=s}get x(){return this._x}set x(e){this._x=e,this._onChangeCallback()}get y(){return this._y}set y(e){this._y=e,this._onChangeCallback()}get z(){return this._z}set z(e){this._z=e,this._onChangeCallback()}get order(){return this._order}set order(e){this._order=e,this._onChangeCallback()}set(e,t,i,s=this._order){return this._x=e,this._y=t,this._z=i,this._order=s,this._onChangeCallback(),this}clone(){return new this.constructor(this._x,this._y,this._z,this._order)}copy(e){return this._x=e._x,this._y=e._y,this._z=e._z,this._order=e._order,this._onChangeCallback(),this}setFromRotationMatrix(e,t=this._order,i=!0){const s=e.elements,r=s[0],a=s[4],o=s[8],l=s[1],c=s[5],u=s[9],d=s[2],f=s[6],h=s[10];switch(t){case"XYZ":this._y=Math.asin(ht(o,-1,1)),Math.abs(o)<.9999999?(this._x=Math.atan2(-u,h),this._z=Math.atan2(-a,r)):(this._x=Math.atan2(f,c),this._z=0);break;case"YXZ":this._x=Math.asin(-ht(u,-1,1)),Math.abs(u)<.9999999?(this._y=Math.atan2(o,h),this._z=Math.atan2(l,c)):(this._y=Math.atan2(-d,r),this._z=0);break;case"ZXY":this._x=Math.asin(ht(f,-1,1)),Math.abs(f)<.9999999?(this._y=Math.atan2(-d,h),this._z=Math.atan2(-a,c)):(this._y=0,this._z=Math.atan2(l,r));break;case"ZYX":this._y=Math.asin(-ht(d,-1,1)),Math.abs(d)<.9999999?(this._x=Math.atan2(f,h),this._z=Math.atan2(l,r)):(this._x=0,this._z=Math.atan2(-a,c));break;case"YZX":this._z=Math.asin(ht(l,-1,1)),Math.abs(l)<.9999999?(this._x=Math.atan2(-u,c),this._y=Math.atan2(-d,r)):(this._x=0,this._y=Math.atan2(o,h));break;case"XZY":this._z=Math.asin(-ht(a,-1,1)),Math.abs(a)<.9999999?(this._x=Math.atan2(f,c),this._y=Math.atan2(o,r)):(this._x=Math.atan2(-u,h),this._y=0);break;default:Je("Euler: .setFromRotationMatrix() encountered an unknown order: "+t)}return this._order=t,i===!0&&this._onChangeCallback(),this}setFromQuaternion(e,t,i){return Gf.makeRotationFromQuaternion(e),this.setFromRotationMatrix(Gf,t,i)}setFromVector3(e,t=this._order){return this.set(e.x,e.y,e.z,t)}reorder(e){return Hf.setFromEuler(this),this.setFromQuaternion(Hf,e)}equals(e){return e._x===this._x&&e._y===this._y&&e._z===this._z&&e._order===this._order}fromArray(e){return this._x=e[0],this._y=e[1],this._z=e[2],e[3]!==void 0&&(this._order=e[3]),this._onChangeCallback(),this}toArray(e=[],t=0){return e[t]=this._x,e[t+1]=this._y,e[t+2]=this._z,e[t+3]=this._order,e}_onChange(e){return this._onChangeCallback=e,this}_onChangeCallback(){}*[Symbol.iterator](){yield this._x,yield this._y,yield this._z,yield this._order}}Os.DEFAULT_ORDER="XYZ";class hp{constructor(){this.mask=1}set(e){this.mask=(1<<e|0)>>>0}enable(e){this.mask|=1<<e|0}enableAll(){this.mask=-1}toggle(e){this.mask^=1<<e|0}disable(e){this.mask&=~(1<<e|0)}disableAll(){this.mask=0}test(e){return(this.mask&e.mask)!==0}isEnabled(e){return(this.mask&(1<<e|0))!==0}}let u_=0;const Vf=new W,nr=new Dr,Hi=new Wt,Na=new W,Xr=new W,f_=new W,h_=new Dr,Wf=new W(1,0,0),Xf=new W(0,1,0),qf=new W(0,0,1),Yf={type:"added"},d_={type:"removed"},ir={type:"childadded",child:null},wl={type:"childremoved",child:null};class zn extends Gs{constructor(){super(),this.isObject3D=!0,Object.defineProperty(this,"id",{value:u_++}),this.uuid=Lr(),this.name="",this.type="Object3D",this.parent=null,this.children=[],this.up=zn.DEFAULT_UP.clone();const e=new W,t=new Os,i=new Dr,s=new W(1,1,1);function r(){i.setFromEuler(t,!1)}function a(){t.setFromQuaternion(i,void 0,!1)}t._onChange(r),i._onChange(a),Object.defineProperties(this,{position:{configurable:!0,enumerable:!0,value:e},rotation:{configurable:!0,enumerable:!0,value:t},quaternion:{configurable:!0,enumerable:!0,value:i},scale:{configurable:!0,enumerable:!0,value:s},modelViewMatrix:{value:new Wt},normalMatrix:{value:new it}}),this.matrix=new Wt,this.matrixWorld=new Wt,this.matrixAutoUpdate=zn.DEFAULT_MATRIX_AUTO_UPDATE,this.matrixWorldAutoUpdate=zn.DEFAULT_MATRIX_WORLD_AUTO_UPDATE,this.matrixWorldNeedsUpdate=!1,this.layers=new hp,this.visible=!0,this.castShadow=!1,this.receiveShadow=!1,this.frustumCulled=!0,this.renderOrder=0,this.animations=[],this.customDepthMaterial=void 0,this.customDistanceMaterial=void 0,this.static=!1,this.userData={},this.pivot=null}onBeforeShadow(){}onAfterShadow(){}onBeforeRender(){}onAfterRender(){}applyMatrix4(e){this.matrixAutoUpdate&&this.updateMatrix(),this.matrix.premultiply(e),this.matrix.decompose(this.position,this.quaternion,this.scale),this.pivot!==null&&this.position.copy(this.pivot).applyMatrix4(this.matrix).sub(this.pivot)}applyQuaternion(e){return this.quaternion.premultiply(e),this}setRotationFromAxisAngle(e,t){this.quaternion.setFromAxisAngle(e,t)}setRotationFromEuler(e){this.quaternion.setFromEuler(e,!0)}setRotationFromMatrix(e){this.quaternion.setFromRotationMatrix(e)}setRotationFromQuaternion(e){this.quaternion.copy(e)}rotateOnAxis(e,t){return nr.setFromAxisAngle(e,t),this.quaternion.multiply(nr),this}rotateOnWorldAxis(e,t){return nr.setFromAxisAngle(e,t),this.quaternion.premultiply(nr),this}rotateX(e){return this.rotateOnAxis(Wf,e)}rotateY(e){return this.rotateOnAxis(Xf,e)}rotateZ(e){return this.rotateOnAxis(qf,e)}translateOnAxis(e,t){return Vf.copy(e).applyQuaternion(this.quaternion),this.position.add(Vf.multiplyScalar(t)),this}translateX(e){return this.translateOnAxis(Wf,e)}translateY(e){return this.translateOnAxis(Xf,e)}translateZ(e){return this.translateOnAxis(qf,e)}localToWorld(e){return this.updateWorldMatrix(!0,!1),e.applyMatrix4(this.matrixWorld)}worldToLocal(e){return this.updateWorldMatrix(!0,!1),e.applyMatrix4(Hi.copy(this.matrixWorld).invert())}lookAt(e,t,i){e.isVector3?Na.copy(e):Na.set(e,t,i);const s=this.parent;this.updateWorldMatrix(!0,!1),Xr.setFromMatrixPosition(this.matrixWorld),this.isCamera||this.isLight?Hi.lookAt(Xr,Na,this.up):Hi.lookAt(Na,Xr,this.up),this.quaternion.setFromRotationMatrix(Hi),s&&(Hi.extractRotation(s.matrixWorld),nr.setFromRotationMatrix(Hi),this.quaternion.premultiply(nr.invert()))}add(e){if(arguments.length>1){for(let t=0;t<arguments.length;t++)this.add(arguments[t]);return this}return e===this?(Mt("Object3D.add: object can't be added as a child of itself.",e),this):(e&&e.isObject3D?(e.removeFromParent(),e.parent=this,this.children.push(e),e.dispatchEvent(Yf),ir.child=e,this.dispatchEvent(ir),ir.child=null):Mt("Object3D.add: object not an instance of THREE.Object3D.",e),this)}remove(e){if(arguments.length>1){for(let i=0;i<arguments.length;i++)this.remove(arguments[i]);return this}const t=this.children.indexOf(e);return t!==-1&&(e.parent=null,this.children.splice(t,1),e.dispatchEvent(d_),wl.child=e,this.dispatchEvent(wl),wl.child=null),this}removeFromParent(){const e=this.parent;return e!==null&&e.remove(this),this}clear(){return this.remove(...this.children)}attach(e){return this.updateWorldMatrix(!0,!1),Hi.copy(this.matrixWorld).invert(),e.parent!==null&&(e.parent.updateWorldMatrix(!0,!1),Hi.multiply(e.parent.matrixWorld)),e.applyMatrix4(Hi),e.removeFromParent(),e.parent=this,this.children.push(e),e.updateWorldMatrix(!1,!0),e.dispatchEvent(Yf),ir.child=e,this.dispatchEvent(ir),ir.child=null,this}getObjectById(e){return this.getObjectByProperty("id",e)}getObjectByName(e){return this.getObjectByProperty("name",e)}getObjectByProperty(e,t){if(this[e]===t)return this;for(let i=0,s=this.children.length;i<s;i++){const a=this.children[i].getObjectByProperty(e,t);if(a!==void 0)return a}}getObjectsByProperty(e,t,i=[]){this[e]===t&&i.push(this);const s=this.children;for(let r=0,a=s.length;r<a;r++)s[r].getObjectsByProperty(e,t,i);return i}getWorldPosition(e){return this.updateWorldMatrix(!0,!1),e.setFromMatrixPosition(this.matrixWorld)}getWorldQuaternion(e){return this.updateWorldMatrix(!0,!1),this.matrixWorld.decompose(Xr,e,f_),e}getWorldScale(e){return this.updateWorldMatrix(!0,!1),this.matrixWorld.decompose(Xr,h_,e),e}getWorldDirection(e){this.updateWorldMatrix(!0,!1);const t=this.matrixWorld.elements;return e.set(t[8],t[9],t[10]).normalize()}raycast(){}intersectsFrustum(){return!0}traverse(e){e(this);const t=this.children;for(let i=0,s=t.length;i<s;i++)t[i].traverse(e)}traverseVisible(e){if(this.visible===!1)return;e(this);const t=this.children;for(let i=0,s=t.length;i<s;i++)t[i].traverseVisible(e)}traverseAncestors(e){const t=this.parent;t!==null&&(e(t),t.traverseAncestors(e))}updateMatrix(){this.matrix.compose(this.position,this.quaternion,this.scale);const e=this.pivot;if(e!==null){const t=e.x,i=e.y,s=e.z,r=this.matrix.elements;r[12]+=t-r[0]*t-r[4]*i-r[8]*s,r[13]+=i-r[1]*t-r[5]*i-r[9]*s,r[14]+=s-r[2]*t-r[6]*i-r[10]*s}this.matrixWorldNeedsUpdate=!0}updateMatrixWorld(e){this.matrixAutoUpdate&&this.updateMatrix(),(this.matrixWorldNeedsUpdate||e)&&(this.matrixWorldAutoUpdate===!0&&(this.parent===null?this.matrixWorld.copy(this.matrix):this.matrixWorld.multiplyMatrices(this.parent.matrixWorld,this.matrix)),this.matrixWorldNeedsUpdate=!1,e=!0);const t=this.children;for(let i=0,s=t.length;i<s;i++)t[i].updateMatrixWorld(e)}updateWorldMatrix(e,t,i=!1){const s=this.parent;if(e===!0&&s!==null&&s.updateWorldMatrix(!0,!1),this.matrixAutoUpdate&&this.updateMatrix(),(this.matrixWorldNeedsUpdate||i)&&(this.matrixWorldAutoUpdate===!0&&(this.parent===null?this.matrixWorld.copy(this.matrix):this.matrixWorld.multiplyMatrices(this.parent.matrixWorld,this.matrix)),this.matrixWorldNeedsUpdate=!1,i=!0),t===!0){const r=this.children;for(let a=0,o=r.length;a<o;a++)r[a].updateWorldMatrix(!1,!0,i)}}toJSON(e){const t=e===void 0||typeof e=="string",i={};t&&(e={geometries:{},materials:{},textures:{},images:{},shapes:{},skeletons:{},animations:{},nodes:{}},i.metadata={version:4.7,type:"Object",generator:"Object3D.toJSON"});const s={};s.uuid=this.uuid,s.type=this.type,s.name=this.name,s.castShadow=this.castShadow,s.receiveShadow=this.receiveShadow,s.visible=this.visible,s.frustumCulled=this.frustumCulled,s.renderOrder=this.renderOrder,s.static=this.static,s.matrixAutoUpdate=this.matrixAutoUpdate,Object.keys(this.userData).length>0&&(s.userData=this.userData),s.layers=this.layers.mask,s.matrix=this.matrix.toArray(),s.up=this.up.toArray(),this.pivot!==null&&(s.pivot=this.pivot.toArray()),this.morphTargetDictionary!==void 0&&(s.morphTargetDictionary=Object.assign({},this.morphTargetDictionary)),this.morphTargetInfluences!==void 0&&(s.morphTargetInfluences=this.morphTargetInfluences.slice()),this.isInstancedMesh&&(s.type="InstancedMesh",s.count=this.count,s.instanceMatrix=this.instanceMatrix.toJSON(),this.instanceColor!==null&&(s.instanceColor=this.instanceColor.toJSON())),this.isBatchedMesh&&(s.type="BatchedMesh",s.perObjectFrustumCulled=this.perObjectFrustumCulled,s.sortObjects=this.sortObjects,s.drawRanges=this._drawRanges,s.reservedRanges=this._reservedRanges,s.geometryInfo=this._geometryInfo.map(o=>({...o,boundingBox:o.boundingBox?o.boundingBox.toJSON():void 0,boundingSphere:o.boundingSphere?o.boundingSphere.toJSON():void 0})),s.instanceInfo=this._instanceInfo.map(o=>({...o})),s.availableInstanceIds=this._availableInstanceIds.slice(),s.availableGeometryIds=this._availableGeometryIds.slice(),s.nextIndexStart=this._nextIndexStart,s.nextVertexStart=this._nextVertexStart,s.geometryCount=this._geometryCount,s.maxInstanceCount=this._maxInstanceCount,s.maxVertexCount=this._maxVertexCount,s.maxIndexCount=this._maxIndexCount,s.geometryInitialized=this._geometryInitialized,s.matricesTexture=this._matricesTexture.toJSON(e),s.indirectTexture=this._indirectTexture.toJSON(e),this._colorsTexture!==null&&(s.colorsTexture=this._colorsTexture.toJSON(e)),this.boundingSphere!==null&&(s.boundingSphere=this.boundingSphere.toJSON()),this.boundingBox!==null&&(s.boundingBox=this.boundingBox.toJSON()));function r(o,l){return o[l.uuid]===void 0&&(o[l.uuid]=l.toJSON(e)),l.uuid}if(this.isScene)this.background&&(this.background.isColor?s.background=this.background.toJSON():this.background.isTexture&&(s.background=this.background.toJSON(e).uuid)),this.environment&&this.environment.isTexture&&this.environment.isRenderTargetTexture!==!0&&(s.environment=this.environment.toJSON(e).uuid);else if(this.isMesh||this.isLine||this.isPoints){s.geometry=r(e.geometries,this.geometry);const o=this.geometry.parameters;if(o!==void 0&&o.shapes!==void 0){const l=o.shapes;if(Array.isArray(l))for(let c=0,u=l.length;c<u;c++){const d=l[c];r(e.shapes,d)}else r(e.shapes,l)}}if(this.isSkinnedMesh&&(s.bindMode=this.bindMode,s.bindMatrix=this.bindMatrix.toArray(),this.skeleton!==void 0&&(r(e.skeletons,this.skeleton),s.skeleton=this.skeleton.uuid)),this.material!==void 0)if(Array.isArray(this.material)){const o=[];for(let l=0,c=this.material.length;l<c;l++)o.push(r(e.materials,this.material[l]));s.material=o}else s.material=r(e.materials,this.material);if(this.children.length>0){s.children=[];for(let o=0;o<this.children.length;o++)s.children.push(this.children[o].toJSON(e).object)}if(this.animations.length>0){s.animations=[];for(let o=0;o<this.animations.length;o++){const l=this.animations[o];s.animations.push(r(e.animations,l))}}if(t){const o=a(e.geometries),l=a(e.materials),c=a(e.textures),u=a(e.images),d=a(e.shapes),f=a(e.skeletons),h=a(e.animations),g=a(e.nodes);o.length>0&&(i.geometries=o),l.length>0&&(i.materials=l),c.length>0&&(i.textures=c),u.length>0&&(i.images=u),d.length>0&&(i.shapes=d),f.length>0&&(i.skeletons=f),h.length>0&&(i.animations=h),g.length>0&&(i.nodes=g)}return i.object=s,i;function a(o){const l=[];for(const c in o){const u=o[c];delete u.metadata,l.push(u)}return l}}clone(e){return new this.constructor().copy(this,e)}copy(e,t=!0){if(this.name=e.name,this.up.copy(e.up),this.position.copy(e.position),this.rotation.order=e.rotation.order,this.quaternion.copy(e.quaternion),this.scale.copy(e.scale),this.pivot=e.pivot!==null?e.pivot.clone():null,this.matrix.copy(e.matrix),this.matrixWorld.copy(e.matrixWorld),this.matrixAutoUpdate=e.matrixAutoUpdate,this.matrixWorldAutoUpdate=e.matrixWorldAutoUpdate,this.matrixWorldNeedsUpdate=e.matrixWorldNeedsUpdate,this.layers.mask=e.layers.mask,this.visible=e.visible,this.castShadow=e.castShadow,this.receiveShadow=e.receiveShadow,this.frustumCulled=e.frustumCulled,this.renderOrder=e.renderOrder,this.static=e.static,this.animations=e.animations.slice(),this.userData=JSON.parse(JSON.stringify(e.userData)),t===!0)for(let i=0;i<e.children.length;i++){const s=e.children[i];this.add(s.clone())}return this}dispose(){this.dispatchEvent({type:"dispose"})}}zn.DEFAULT_UP=new W(0,1,0);zn.DEFAULT_MATRIX_AUTO_UPDATE=!0;zn.DEFAULT_MATRIX_WORLD_AUTO_UPDATE=!0;class Ia extends zn{constructor(){super(),this.isGroup=!0,this.type="Group"}}const p_={type:"move"};class Al{constructor(){this._targetRay=null,this._grip=null,this._hand=null}getHandSpace(){return this._hand===null&&(this._hand=new Ia,this._hand.matrixAutoUpdate=!1,this._hand.visible=!1,this._hand.joints={},this._hand.inputState={pinching:!1}),this._hand}getTargetRaySpace(){return this._targetRay===null&&(this._targetRay=new Ia,this._targetRay.matrixAutoUpdate=!1,this._targetRay.visible=!1,this._targetRay.hasLinearVelocity=!1,this._targetRay.linearVelocity=new W,this._targetRay.hasAngularVelocity=!1,this._targetRay.angularVelocity=new W),this._targetRay}getGripSpace(){return this._grip===null&&(this._grip=new Ia,this._grip.matrixAutoUpdate=!1,this._grip.visible=!1,this._grip.hasLinearVelocity=!1,this._grip.linearVelocity=new W,this._grip.hasAngularVelocity=!1,this._grip.angularVelocity=new W,this._grip.eventsEnabled=!1),this._grip}dispatchEvent(e){return this._targetRay!==null&&this._targetRay.dispatchEvent(e),this._grip!==null&&this._grip.dispatchEvent(e),this._hand!==null&&this._hand.dispatchEvent(e),this}connect(e){if(e&&e.hand){const t=this._hand;if(t)for(const i of e.hand.values())this._getHandJoint(t,i)}return this.dispatchEvent({type:"connected",data:e}),this}disconnect(e){return this.dispatchEvent({type:"disconnected",data:e}),this._targetRay!==null&&(this._targetRay.visible=!1),this._grip!==null&&(this._grip.visible=!1),this._hand!==null&&(this._hand.visible=!1),this}update(e,t,i){let s=null,r=null,a=null;const o=this._targetRay,l=this._grip,c=this._hand;if(e&&t.session.visibilityState!=="visible-blurred"){if(c&&e.hand){a=!0;for(const M of e.hand.values()){const p=t.getJointPose(M,i),m=this._getHandJoint(c,M);p!==null&&(m.matrix.fromArray(p.transform.matrix),m.matrix.decompose(m.position,m.quaternion,m.scale),m.matrixWorldNeedsUpdate=!0,m.jointRadius=p.radius),m.visible=p!==null}const u=c.joints["index-finger-tip"],d=c.joints["thumb-tip"],f=u.position.distanceTo(d.position),h=.02,g=.005;c.inputState.pinching&&f>h+g?(c.inputState.pinching=!1,this.dispatchEvent({type:"pinchend",handedness:e.handedness,target:this})):!c.inputState.pinching&&f<=h-g&&(c.inputState.pinching=!0,this.dispatchEvent({type:"pinchstart",handedness:e.handedness,target:this}))}else l!==null&&e.gripSpace&&(r=t.getPose(e.gripSpace,i),r!==null&&(l.matrix.fromArray(r.transform.matrix),l.matrix.decompose(l.position,l.quaternion,l.scale),l.matrixWorldNeedsUpdate=!0,r.linearVelocity?(l.hasLinearVelocity=!0,l.linearVelocity.copy(r.linearVelocity)):l.hasLinearVelocity=!1,r.angularVelocity?(l.hasAngularVelocity=!0,l.angularVelocity.copy(r.angularVelocity)):l.hasAngularVelocity=!1,l.eventsEnabled&&l.dispatchEvent({type:"gripUpdated",data:e,target:this})));o!==null&&(s=t.getPose(e.targetRaySpace,i),s===null&&r!==null&&(s=r),s!==null&&(o.matrix.fromArray(s.transform.matrix),o.matrix.decompose(o.position,o.quaternion,o.scale),o.matrixWorldNeedsUpdate=!0,s.linearVelocity?(o.hasLinearVelocity=!0,o.linearVelocity.copy(s.linearVelocity)):o.hasLinearVelocity=!1,s.angularVelocity?(o.hasAngularVelocity=!0,o.angularVelocity.copy(s.angularVelocity)):o.hasAngularVelocity=!1,this.dispatchEvent(p_)))}return o!==null&&(o.visible=s!==null),l!==null&&(l.visible=r!==null),c!==null&&(c.visible=a!==null),this}_getHandJoint(e,t){if(e.joints[t.jointName]===void 0){const i=new Ia;i.matrixAutoUpdate=!1,i.visible=!1,e.joints[t.jointName]=i,e.add(i)}return e.joints[t.jointName]}}const dp={aliceblue:15792383,antiquewhite:16444375,aqua:65535,aquamarine:8388564,azure:15794175,beige:16119260,bisque:16770244,black:0,blanchedalmond:16772045,blue:255,blueviolet:9055202,brown:10824234,burlywood:14596231,cadetblue:6266528,chartreuse:8388352,chocolate:13789470,coral:16744272,cornflowerblue:6591981,cornsilk:16775388,crimson:14423100,cyan:65535,darkblue:139,darkcyan:35723,darkgoldenrod:12092939,darkgray:11119017,darkgreen:25600,darkgrey:11119017,darkkhaki:12433259,darkmagenta:9109643,darkolivegreen:5597999,darkorange:16747520,darkorchid:10040012,darkred:9109504,darksalmon:15308410,darkseagreen:9419919,darkslateblue:4734347,darkslategray:3100495,darkslategrey:3100495,darkturquoise:52945,darkviolet:9699539,deeppink:16716947,deepskyblue:49151,dimgray:6908265,dimgrey:6908265,dodgerblue:2003199,firebrick:11674146,floralwhite:16775920,forestgreen:2263842,fuchsia:16711935,gainsboro:14474460,ghostwhite:16316671,gold:16766720,goldenrod:14329120,gray:8421504,green:32768,greenyellow:11403055,grey:8421504,honeydew:15794160,hotpink:16738740,indianred:13458524,indigo:4915330,ivory:16777200,khaki:15787660,lavender:15132410,lavenderblush:16773365,lawngreen:8190976,lemonchiffon:16775885,lightblue:11393254,lightcoral:15761536,lightcyan:14745599,lightgoldenrodyellow:16448210,lightgray:13882323,lightgreen:9498256,lightgrey:13882323,lightpink:16758465,lightsalmon:16752762,lightseagreen:2142890,lightskyblue:8900346,lightslategray:7833753,lightslategrey:7833753,lightsteelblue:11584734,lightyellow:16777184,lime:65280,limegreen:3329330,linen:16445670,magenta:16711935,maroon:8388608,mediumaquamarine:6737322,mediumblue:205,mediumorchid:12211667,mediumpurple:9662683,mediumseagreen:3978097,mediumslateblue:8087790,mediumspringgreen:64154,mediumturquoise:4772300,mediumvioletred:13047173,midnightblue:1644912,mintcream:16121850,mistyrose:16770273,moccasin:16770229,navajowhite:16768685,navy:128,oldlace:16643558,olive:8421376,olivedrab:7048739,orange:16753920,orangered:16729344,orchid:14315734,palegoldenrod:15657130,palegreen:10025880,paleturquoise:11529966,palevioletred:14381203,papayawhip:16773077,peachpuff:16767673,peru:13468991,pink:16761035,plum:14524637,powderblue:11591910,purple:8388736,rebeccapurple:6697881,red:16711680,rosybrown:12357519,royalblue:4286945,saddlebrown:9127187,salmon:16416882,sandybrown:16032864,seagreen:3050327,seashell:16774638,sienna:10506797,silver:12632256,skyblue:8900331,slateblue:6970061,slategray:7372944,slategrey:7372944,snow:16775930,springgreen:65407,steelblue:4620980,tan:13808780,teal:32896,thistle:14204888,tomato:16737095,turquoise:4251856,violet:15631086,wheat:16113331,white:16777215,whitesmoke:16119285,yellow:16776960,yellowgreen:10145074},os={h:0,s:0,l:0},Ua={h:0,s:0,l:0};function Rl(n,e,t){return t<0&&(t+=1),t>1&&(t-=1),t<1/6?n+(e-n)*6*t:t<1/2?e:t<2/3?n+(e-n)*6*(2/3-t):n}class yt{constructor(e,t,i){return this.isColor=!0,this.r=1,this.g=1,this.b=1,this.set(e,t,i)}set(e,t,i){if(t===void 0&&i===void 0){const s=e;s&&s.isColor?this.copy(s):typeof s=="number"?this.setHex(s):typeof s=="string"&&this.setStyle(s)}else this.setRGB(e,t,i);return this}setScalar(e){return this.r=e,this.g=e,this.b=e,this}setHex(e,t=ei){return e=Math.floor(e),this.r=(e>>16&255)/255,this.g=(e>>8&255)/255,this.b=(e&255)/255,mt.colorSpaceToWorking(this,t),this}setRGB(e,t,i,s=mt.workingColorSpace){return this.r=e,this.g=t,this.b=i,mt.colorSpaceToWorking(this,s),this}setHSL(e,t,i,s=mt.workingColorSpace){if(e=Qg(e,1),t=ht(t,0,1),i=ht(i,0,1),t===0)this.r=this.g=this.b=i;else{const r=i<=.5?i*(1+t):i+t-i*t,a=2*i-r;this.r=Rl(a,r,e+1/3),this.g=Rl(a,r,e),this.b=Rl(a,r,e-1/3)}return mt.colorSpaceToWorking(this,s),this}setStyle(e,t=ei){function i(r){r!==void 0&&parseFloat(r)<1&&Je("Color: Alpha component of "+e+" will be ignored.")}let s;if(s=/^(\w+)\(([^\)]*)\)/.exec(e)){let r;const a=s[1],o=s[2];switch(a){case"rgb":case"rgba":if(r=/^\s*(\d+)\s*,\s*(\d+)\s*,\s*(\d+)\s*(?:,\s*(\d+(?:\.\d+)?|\.\d+)\s*)?$/.exec(o))return i(r[4]),this.setRGB(Math.min(255,parseInt(r[1],10))/255,Math.min(255,parseInt(r[2],10))/255,Math.min(255,parseInt(r[3],10))/255,t);if(r=/^\s*(\d+(?:\.\d+)?|\.\d+)\%\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*(?:,\s*(\d+(?:\.\d+)?|\.\d+)\s*)?$/.exec(o))return i(r[4]),this.setRGB(Math.min(100,parseFloat(r[1]))/100,Math.min(100,parseFloat(r[2]))/100,Math.min(100,parseFloat(r[3]))/100,t);break;case"hsl":case"hsla":if(r=/^\s*([+-]?(?:\d+(?:\.\d+)?|\.\d+))\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*(?:,\s*(\d+(?:\.\d+)?|\.\d+)\s*)?$/.exec(o))return i(r[4]),this.setHSL(parseFloat(r[1])/360,parseFloat(r[2])/100,parseFloat(r[3])/100,t);break;default:Je("Color: Unknown color model "+e)}}else if(s=/^\#([A-Fa-f\d]+)$/.exec(e)){const r=s[1],a=r.length;if(a===3)return this.setRGB(parseInt(r.charAt(0),16)/15,parseInt(r.charAt(1),16)/15,parseInt(r.charAt(2),16)/15,t);if(a===6)return this.setHex(parseInt(r,16),t);Je("Color: Invalid hex color "+e)}else if(e&&e.length>0)return this.setColorName(e,t);return this}setColorName(e,t=ei){const i=dp[e.toLowerCase()];return i!==void 0?this.setHex(i,t):Je("Color: Unknown color "+e),this}clone(){return new this.constructor(this.r,this.g,this.b)}copy(e){return this.r=e.r,this.g=e.g,this.b=e.b,this}copySRGBToLinear(e){return this.r=Ji(e.r),this.g=Ji(e.g),this.b=Ji(e.b),this}copyLinearToSRGB(e){return this.r=vr(e.r),this.g=vr(e.g),this.b=vr(e.b),this}convertSRGBToLinear(){return this.copySRGBToLinear(this),this}convertLinearToSRGB(){return this.copyLinearToSRGB(this),this}getHex(e=ei){return mt.workingToColorSpace(An.copy(this),e),Math.round(ht(An.r*255,0,255))*65536+Math.round(ht(An.g*255,0,255))*256+Math.round(ht(An.b*255,0,255))}getHexString(e=ei){return("000000"+this.getHex(e).toString(16)).slice(-6)}getHSL(e,t=mt.workingColorSpace){mt.workingToColorSpace(An.copy(this),t);const i=An.r,s=An.g,r=An.b,a=Math.max(i,s,r),o=Math.min(i,s,r);let l,c;const u=(o+a)/2;if(o===a)l=0,c=0;else{const d=a-o;switch(c=u<=.5?d/(a+o):d/(2-a-o),a){case i:l=(s-r)/d+(s<r?6:0);break;case s:l=(r-i)/d+2;break;case r:l=(i-s)/d+4;break}l/=6}return e.h=l,e.s=c,e.l=u,e}getRGB(e,t=mt.workingColorSpace){return mt.workingToColorSpace(An.copy(this),t),e.r=An.r,e.g=An.g,e.b=An.b,e}getStyle(e=ei){mt.workingToColorSpace(An.copy(this),e);const t=An.r,i=An.g,s=An.b;return e!==ei?`color(${e} ${t.toFixed(3)} ${i.toFixed(3)} ${s.toFixed(3)})`:`rgb(${Math.round(t*255)},${Math.round(i*255)},${Math.round(s*255)})`}offsetHSL(e,t,i){return this.getHSL(os),this.setHSL(os.h+e,os.s+t,os.l+i)}add(e){return this.r+=e.r,this.g+=e.g,this.b+=e.b,this}addColors(e,t){return this.r=e.r+t.r,this.g=e.g+t.g,this.b=e.b+t.b,this}addScalar(e){return this.r+=e,this.g+=e,this.b+=e,this}sub(e){return this.r=Math.max(0,this.r-e.r),this.g=Math.max(0,this.g-e.g),this.b=Math.max(0,this.b-e.b),this}multiply(e){return this.r*=e.r,this.g*=e.g,this.b*=e.b,this}multiplyScalar(e){return this.r*=e,this.g*=e,this.b*=e,this}lerp(e,t){return this.r+=(e.r-this.r)*t,this.g+=(e.g-this.g)*t,this.b+=(e.b-this.b)*t,this}lerpColors(e,t,i){return this.r=e.r+(t.r-e.r)*i,this.g=e.g+(t.g-e.g)*i,this.b=e.b+(t.b-e.b)*i,this}lerpHSL(e,t){this.getHSL(os),e.getHSL(Ua);const i=Ml(os.h,Ua.h,t),s=Ml(os.s,Ua.s,t),r=Ml(os.l,Ua.l,t);return this.setHSL(i,s,r),this}setFromVector3(e){return this.r=e.x,this.g=e.y,this.b=e.z,this}applyMatrix3(e){const t=this.r,i=this.g,s=this.b,r=e.elements;return this.r=r[0]*t+r[3]*i+r[6]*s,this.g=r[1]*t+r[4]*i+r[7]*s,this.b=r[2]*t+r[5]*i+r[8]*s,this}equals(e){return e.r===this.r&&e.g===this.g&&e.b===this.b}fromArray(e,t=0){return this.r=e[t],this.g=e[t+1],this.b=e[t+2],this}toArray(e=[],t=0){return e[t]=this.r,e[t+1]=this.g,e[t+2]=this.b,e}fromBufferAttribute(e,t){return this.r=e.getX(t),this.g=e.getY(t),this.b=e.getZ(t),this}toJSON(){return this.getHex()}*[Symbol.iterator](){yield this.r,yield this.g,yield this.b}}const An=new yt;yt.NAMES=dp;class Fa extends zn{constructor(){super(),this.isScene=!0,this.type="Scene",this.background=null,this.environment=null,this.fog=null,this.backgroundBlurriness=0,this.backgroundIntensity=1,this.backgroundRotation=new Os,this.environmentIntensity=1,this.environmentRotation=new Os,this.overrideMaterial=null,typeof __THREE_DEVTOOLS__<"u"&&__THREE_DEVTOOLS__.dispatchEvent(new CustomEvent("observe",{detail:this}))}copy(e,t){return super.copy(e,t),this.background=e.background!==null?e.background.clone():null,this.environment=e.environment!==null?e.environment.clone():null,this.fog=e.fog!==null?e.fog.clone():null,this.backgroundBlurriness=e.backgroundBlurriness,this.backgroundIntensity=e.backgroundIntensity,this.backgroundRotation.copy(e.backgroundRotation),this.environmentIntensity=e.environmentIntensity,this.environmentRotation.copy(e.environmentRotation),this.overrideMaterial=e.overrideMaterial!==null?e.overrideMaterial.clone():null,this.matrixAutoUpdate=e.matrixAutoUpdate,this}toJSON(e){const t=super.toJSON(e);return this.fog!==null&&(t.object.fog=this.fog.toJSON()),t.object.backgroundBlurriness=this.backgroundBlurriness,t.object.backgroundIntensity=this.backgroundIntensity,t.object.backgroundRotation=this.backgroundRotation.toArray(),t.object.environmentIntensity=this.environmentIntensity,t.object.environmentRotation=this.environmentRotation.toArray(),t}}const ci=new W,Vi=new W,Cl=new W,Wi=new W,sr=new W,rr=new W,$f=new W,Pl=new W,Ll=new W,Dl=new W,Nl=new ln,Il=new ln,Ul=new ln;class pi{constructor(e=new W,t=new W,i=new W){this.a=e,this.b=t,this.c=i}static getNormal(e,t,i,s){s.subVectors(i,t),ci.subVectors(e,t),s.cross(ci);const r=s.lengthSq();return r>0?s.multiplyScalar(1/Math.sqrt(r)):s.set(0,0,0)}static getBarycoord(e,t,i,s,r){ci.subVectors(s,t),Vi.subVectors(i,t),Cl.subVectors(e,t);const a=ci.dot(ci),o=ci.dot(Vi),l=ci.dot(Cl),c=Vi.dot(Vi),u=Vi.dot(Cl),d=a*c-o*o;if(d===0)return r.set(0,0,0),null;const f=1/d,h=(c*l-o*u)*f,g=(a*u-o*l)*f;return r.set(1-h-g,g,h)}static containsPoint(e,t,i,s){return this.getBarycoord(e,t,i,s,Wi)===null?!1:Wi.x>=0&&Wi.y>=0&&Wi.x+Wi.y<=1}static getInterpolation(e,t,i,s,r,a,o,l){return this.getBarycoord(e,t,i,s,Wi)===null?(l.x=0,l.y=0,"z"in l&&(l.z=0),"w"in l&&(l.w=0),null):(l.setScalar(0),l.addScaledVector(r,Wi.x),l.addScaledVector(a,Wi.y),l.addScaledVector(o,Wi.z),l)}static getInterpolatedAttribute(e,t,i,s,r,a){return Nl.setScalar(0),Il.setScalar(0),Ul.setScalar(0),Nl.fromBufferAttribute(e,t),Il.fromBufferAttribute(e,i),Ul.fromBufferAttribute(e,s),a.setScalar(0),a.addScaledVector(Nl,r.x),a.addScaledVector(Il,r.y),a.addScaledVector(Ul,r.z),a}static isFrontFacing(e,t,i,s){return ci.subVectors(i,t),Vi.subVectors(e,t),ci.cross(Vi).dot(s)<0}set(e,t,i){return this.a.copy(e),this.b.copy(t),this.c.copy(i),this}setFromPointsAndIndices(e,t,i,s){return this.a.copy(e[t]),this.b.copy(e[i]),this.c.copy(e[s]),this}setFromAttributeAndIndices(e,t,i,s){return this.a.fromBufferAttribute(e,t),this.b.fromBufferAttribute(e,i),this.c.fromBufferAttribute(e,s),this}clone(){return new this.constructor().copy(this)}copy(e){return this.a.copy(e.a),this.b.copy(e.b),this.c.copy(e.c),this}getArea(){return ci.subVectors(this.c,this.b),Vi.subVectors(this.a,this.b),ci.cross(Vi).length()*.5}getMidpoint(e){return e.addVectors(this.a,this.b).add(this.c).multiplyScalar(1/3)}getNormal(e){return pi.getNormal(this.a,this.b,this.c,e)}getPlane(e){return e.setFromCoplanarPoints(this.a,this.b,this.c)}getBarycoord(e,t){return pi.getBarycoord(e,this.a,this.b,this.c,t)}getInterpolation(e,t,i,s,r){return pi.getInterpolation(e,this.a,this.b,this.c,t,i,s,r)}containsPoint(e){return pi.containsPoint(e,this.a,this.b,this.c)}isFrontFacing(e){return pi.isFrontFacing(this.a,this.b,this.c,e)}intersectsBox(e){return e.intersectsTriangle(this)}closestPointToPoint(e,t){const i=this.a,s=this.b,r=this.c;let a,o;sr.subVectors(s,i),rr.subVectors(r,i),Pl.subVectors(e,i);const l=sr.dot(Pl),c=rr.dot(Pl);if(l<=0&&c<=0)return t.copy(i);Ll.subVectors(e,s);const u=sr.dot(Ll),d=rr.dot(Ll);if(u>=0&&d<=u)return t.copy(s);const f=l*d-u*c;if(f<=0&&l>=0&&u<=0&&l-u>0)return a=l/(l-u),t.copy(i).addScaledVector(sr,a);Dl.subVectors(e,r);const h=sr.dot(Dl),g=rr.dot(Dl);if(g>=0&&h<=g)return t.copy(r);const M=h*c-l*g;if(M<=0&&c>=0&&g<=0)return o=c/(c-g),t.copy(i).addScaledVector(rr,o);const p=u*g-h*d;if(p<=0&&d-u>=0&&h-g>=0)return $f.subVectors(r,s),o=(d-u)/(d-u+(h-g)),t.copy(s).addScaledVector($f,o);const m=1/(p+M+f);return a=M*m,o=f*m,t.copy(i).addScaledVector(sr,a).addScaledVector(rr,o)}equals(e){return e.a.equals(this.a)&&e.b.equals(this.b)&&e.c.equals(this.c)}}class Ma{constructor(e=new W(1/0,1/0,1/0),t=new W(-1/0,-1/0,-1/0)){this.isBox3=!0,this.min=e,this.max=t}set(e,t){return this.min.copy(e),this.max.copy(t),this}setFromArray(e){this.makeEmpty();for(let t=0,i=e.length;t<i;t+=3)this.expandByPoint(ui.fromArray(e,t));return this}setFromBufferAttribute(e){this.makeEmpty();for(let t=0,i=e.count;t<i;t++)this.expandByPoint(ui.fromBufferAttribute(e,t));return this}setFromPoints(e){this.makeEmpty();for(let t=0,i=e.length;t<i;t++)this.expandByPoint(e[t]);return this}setFromCenterAndSize(e,t){const i=ui.copy(t).multiplyScalar(.5);return this.min.copy(e).sub(i),this.max.copy(e).add(i),this}setFromObject(e,t=!1){return this.makeEmpty(),this.expandByObject(e,t)}clone(){return new this.constructor().copy(this)}copy(e){return this.min.copy(e.min),this.max.copy(e.max),this}makeEmpty(){return this.min.x=this.min.y=this.min.z=1/0,this.max.x=this.max.y=this.max.z=-1/0,this}isEmpty(){return this.max.x<this.min.x||this.max.y<this.min.y||this.max.z<this.min.z}getCenter(e){return this.isEmpty()?e.set(0,0,0):e.addVectors(this.min,this.max).multiplyScalar(.5)}getSize(e){return this.isEmpty()?e.set(0,0,0):e.subVectors(this.max,this.min)}expandByPoint(e){return this.min.min(e),this.max.max(e),this}expandByVector(e){return this.min.sub(e),this.max.add(e),this}expandByScalar(e){return this.min.addScalar(-e),this.max.addScalar(e),this}expandByObject(e,t=!1){e.updateWorldMatrix(!1,!1);const i=e.geometry;if(i!==void 0){const r=i.getAttribute("position");if(t===!0&&r!==void 0&&e.isInstancedMesh!==!0&&e.isBatchedMesh!==!0)for(let a=0,o=r.count;a<o;a++)e.isMesh===!0?e.getVertexPosition(a,ui):ui.fromBufferAttribute(r,a),ui.applyMatrix4(e.matrixWorld),this.expandByPoint(ui);else e.boundingBox!==void 0?(e.boundingBox===null&&e.computeBoundingBox(),Oa.copy(e.boundingBox)):(i.boundingBox===null&&i.computeBoundingBox(),Oa.copy(i.boundingBox)),Oa.applyMatrix4(e.matrixWorld),this.union(Oa)}const s=e.children;for(let r=0,a=s.length;r<a;r++)this.expandByObject(s[r],t);return this}containsPoint(e){return e.x>=this.min.x&&e.x<=this.max.x&&e.y>=this.min.y&&e.y<=this.max.y&&e.z>=this.min.z&&e.z<=this.max.z}containsBox(e){return this.min.x<=e.min.x&&e.max.x<=this.max.x&&this.min.y<=e.min.y&&e.max.y<=this.max.y&&this.min.z<=e.min.z&&e.max.z<=this.max.z}getParameter(e,t){return t.set((e.x-this.min.x)/(this.max.x-this.min.x),(e.y-this.min.y)/(this.max.y-this.min.y),(e.z-this.min.z)/(this.max.z-this.min.z))}intersectsBox(e){return e.max.x>=this.min.x&&e.min.x<=this.max.x&&e.max.y>=this.min.y&&e.min.y<=this.max.y&&e.max.z>=this.min.z&&e.min.z<=this.max.z}intersectsSphere(e){return this.clampPoint(e.center,ui),ui.distanceToSquared(e.center)<=e.radius*e.radius}intersectsPlane(e){let t,i;return e.normal.x>0?(t=e.normal.x*this.min.x,i=e.normal.x*this.max.x):(t=e.normal.x*this.max.x,i=e.normal.x*this.min.x),e.normal.y>0?(t+=e.normal.y*this.min.y,i+=e.normal.y*this.max.y):(t+=e.normal.y*this.max.y,i+=e.normal.y*this.min.y),e.normal.z>0?(t+=e.normal.z*this.min.z,i+=e.normal.z*this.max.z):(t+=e.normal.z*this.max.z,i+=e.normal.z*this.min.z),t<=-e.constant&&i>=-e.constant}intersectsTriangle(e){if(this.isEmpty())return!1;this.getCenter(qr),Ba.subVectors(this.max,qr),ar.subVectors(e.a,qr),or.subVectors(e.b,qr),lr.subVectors(e.c,qr),ls.subVectors(or,ar),cs.subVectors(lr,or),Ts.subVectors(ar,lr);let t=[0,-ls.z,ls.y,0,-cs.z,cs.y,0,-Ts.z,Ts.y,ls.z,0,-ls.x,cs.z,0,-cs.x,Ts.z,0,-Ts.x,-ls.y,ls.x,0,-cs.y,cs.x,0,-Ts.y,Ts.x,0];return!Fl(t,ar,or,lr,Ba)||(t=[1,0,0,0,1,0,0,0,1],!Fl(t,ar,or,lr,Ba))?!1:(za.crossVectors(ls,cs),t=[za.x,za.y,za.z],Fl(t,ar,or,lr,Ba))}clampPoint(e,t){return t.copy(e).clamp(this.min,this.max)}distanceToPoint(e){return this.clampPoint(e,ui).distanceTo(e)}getBoundingSphere(e){return this.isEmpty()?e.makeEmpty():(this.getCenter(e.center),e.radius=this.getSize(ui).length()*.5),e}intersect(e){return this.min.max(e.min),this.max.min(e.max),this.isEmpty()&&this.makeEmpty(),this}union(e){return this.min.min(e.min),this.max.max(e.max),this}applyMatrix4(e){return this.isEmpty()?this:(Xi[0].set(this.min.x,this.min.y,this.min.z).applyMatrix4(e),Xi[1].set(this.min.x,this.min.y,this.max.z).applyMatrix4(e),Xi[2].set(this.min.x,this.max.y,this.min.z).applyMatrix4(e),Xi[3].set(this.min.x,this.max.y,this.max.z).applyMatrix4(e),Xi[4].set(this.max.x,this.min.y,this.min.z).applyMatrix4(e),Xi[5].set(this.max.x,this.min.y,this.max.z).applyMatrix4(e),Xi[6].set(this.max.x,this.max.y,this.min.z).applyMatrix4(e),Xi[7].set(this.max.x,this.max.y,this.max.z).applyMatrix4(e),this.setFromPoints(Xi),this)}translate(e){return this.min.add(e),this.max.add(e),this}equals(e){return e.min.equals(this.min)&&e.max.equals(this.max)}toJSON(){return{min:this.min.toArray(),max:this.max.toArray()}}fromJSON(e){return this.min.fromArray(e.min),this.max.fromArray(e.max),this}}const Xi=[new W,new W,new W,new W,new W,new W,new W,new W],ui=new W,Oa=new Ma,ar=new W,or=new W,lr=new W,ls=new W,cs=new W,Ts=new W,qr=new W,Ba=new W,za=new W,bs=new W;function Fl(n,e,t,i,s){for(let r=0,a=n.length-3;r<=a;r+=3){bs.fromArray(n,r);const o=s.x*Math.abs(bs.x)+s.y*Math.abs(bs.y)+s.z*Math.abs(bs.z),l=e.dot(bs),c=t.dot(bs),u=i.dot(bs);if(Math.max(-Math.max(l,c,u),Math.min(l,c,u))>o)return!1}return!0}const rn=new W,ka=new Ve;let m_=0;class Ni extends Gs{constructor(e,t,i=!1){if(super(),Array.isArray(e))throw new TypeError("THREE.BufferAttribute: array should be a Typed Array.");this.isBufferAttribute=!0,Object.defineProperty(this,"id",{value:m_++}),this.name="",this.array=e,this.itemSize=t,this.count=e!==void 0?e.length/t:0,this.normalized=i,this.usage=qg,this.updateRanges=[],this.gpuType=Li,this.version=0,this._normalizationScale=e!==void 0?Pu(e):void 0}onUploadCallback(){}set needsUpdate(e){e===!0&&this.version++}setUsage(e){return this.usage=e,this}addUpdateRange(e,t){this.updateRanges.push({start:e,count:t})}clearUpdateRanges(){this.updateRanges.length=0}copy(e){return this.name=e.name,this.array=new e.array.constructor(e.array),this.itemSize=e.itemSize,this.count=e.count,this.normalized=e.normalized,this.usage=e.usage,this.gpuType=e.gpuType,this._normalizationScale=e._normalizationScale,this}copyAt(e,t,i){e*=this.itemSize,i*=t.itemSize;for(let s=0,r=this.itemSize;s<r;s++)this.array[e+s]=t.array[i+s];return this}copyArray(e){return this.array.set(e),this}applyMatrix3(e){if(this.itemSize===2)for(let t=0,i=this.count;t<i;t++)ka.fromBufferAttribute(this,t),ka.applyMatrix3(e),this.setXY(t,ka.x,ka.y);else if(this.itemSize===3)for(let t=0,i=this.count;t<i;t++)rn.fromBufferAttribute(this,t),rn.applyMatrix3(e),this.setXYZ(t,rn.x,rn.y,rn.z);return this}applyMatrix4(e){for(let t=0,i=this.count;t<i;t++)rn.fromBufferAttribute(this,t),rn.applyMatrix4(e),this.setXYZ(t,rn.x,rn.y,rn.z);return this}applyNormalMatrix(e){for(let t=0,i=this.count;t<i;t++)rn.fromBufferAttribute(this,t),rn.applyNormalMatrix(e),this.setXYZ(t,rn.x,rn.y,rn.z);return this}transformDirection(e){for(let t=0,i=this.count;t<i;t++)rn.fromBufferAttribute(this,t),rn.transformDirection(e),this.setXYZ(t,rn.x,rn.y,rn.z);return this}set(e,t=0){return this.array.set(e,t),this}getComponent(e,t){let i=this.array[e*this.itemSize+t];return this.normalized&&(i=this._denormalize(i)),i}setComponent(e,t,i){return this.normalized&&(i=this._normalize(i)),this.array[e*this.itemSize+t]=i,this}getX(e){let t=this.array[e*this.itemSize];return this.normalized&&(t=this._denormalize(t)),t}setX(e,t){return this.normalized&&(t=this._normalize(t)),this.array[e*this.itemSize]=t,this}getY(e){let t=this.array[e*this.itemSize+1];return this.normalized&&(t=this._denormalize(t)),t}setY(e,t){return this.normalized&&(t=this._normalize(t)),this.array[e*this.itemSize+1]=t,this}getZ(e){let t=this.array[e*this.itemSize+2];return this.normalized&&(t=this._denormalize(t)),t}setZ(e,t){return this.normalized&&(t=this._normalize(t)),this.array[e*this.itemSize+2]=t,this}getW(e){let t=this.array[e*this.itemSize+3];return this.normalized&&(t=this._denormalize(t)),t}setW(e,t){return this.normalized&&(t=this._normalize(t)),this.array[e*this.itemSize+3]=t,this}setXY(e,t,i){return e*=this.itemSize,this.normalized&&(t=this._normalize(t),i=this._normalize(i)),this.array[e+0]=t,this.array[e+1]=i,this}setXYZ(e,t,i,s){return e*=this.itemSize,this.normalized&&(t=this._normalize(t),i=this._normalize(i),s=this._normalize(s)),this.array[e+0]=t,this.array[e+1]=i,this.array[e+2]=s,this}setXYZW(e,t,i,s,r){return e*=this.itemSize,this.normalized&&(t=this._normalize(t),i=this._normalize(i),s=this._normalize(s),r=this._normalize(r)),this.array[e+0]=t,this.array[e+1]=i,this.array[e+2]=s,this.array[e+3]=r,this}onUpload(e){return this.onUploadCallback=e,this}clone(){return new this.constructor(this.array,this.itemSize).copy(this)}toJSON(){const e={itemSize:this.itemSize,type:this.array.constructor.name,array:Array.from(this.array),normalized:this.normalized};return e.name=this.name,e.usage=this.usage,e.gpuType=this.gpuType,e}dispose(){this.dispatchEvent({type:"dispose"})}_denormalize(e){const t=this._normalizationScale;return t!==void 0?Math.max(e/t,-1):e_(e,this.array)}_normalize(e){const t=this._normalizationScale;return t!==void 0?Math.round(e*t):t_(e,this.array)}}class pp extends Ni{constructor(e,t,i){super(new Uint16Array(e),t,i)}}class mp extends Ni{constructor(e,t,i){super(new Uint32Array(e),t,i)}}class Yn extends Ni{constructor(e,t,i){super(new Float32Array(e),t,i)}}const g_=new Ma,Yr=new W,Ol=new W;class qo{constructor(e=new W,t=-1){this.isSphere=!0,this.center=e,this.radius=t}set(e,t){return this.center.copy(e),this.radius=t,this}setFromPoints(e,t){const i=this.center;t!==void 0?i.copy(t):g_.setFromPoints(e).getCenter(i);let s=0;for(let r=0,a=e.length;r<a;r++)s=Math.max(s,i.distanceToSquared(e[r]));return this.radius=Math.sqrt(s),this}copy(e){return this.center.copy(e.center),this.radius=e.radius,this}isEmpty(){return this.radius<0}makeEmpty(){return this.center.set(0,0,0),this.radius=-1,this}containsPoint(e){return e.distanceToSquared(this.center)<=this.radius*this.radius}distanceToPoint(e){return e.distanceTo(this.center)-this.radius}intersectsSphere(e){const t=this.radius+e.radius;return e.center.distanceToSquared(this.center)<=t*t}intersectsBox(e){return e.intersectsSphere(this)}intersectsPlane(e){return Math.abs(e.distanceToPoint(this.center))<=this.radius}clampPoint(e,t){const i=this.center.distanceToSquared(e);return t.copy(e),i>this.radius*this.radius&&(t.sub(this.center).normalize(),t.multiplyScalar(this.radius).add(this.center)),t}getBoundingBox(e){return this.isEmpty()?(e.makeEmpty(),e):(e.set(this.center,this.center),e.expandByScalar(this.radius),e)}applyMatrix4(e){return this.center.applyMatrix4(e),this.radius=this.radius*e.getMaxScaleOnAxis(),this}translate(e){return this.center.add(e),this}expandByPoint(e){if(this.isEmpty())return this.center.copy(e),this.radius=0,this;Yr.subVectors(e,this.center);const t=Yr.lengthSq();if(t>this.radius*this.radius){const i=Math.sqrt(t),s=(i-this.radius)*.5;this.center.addScaledVector(Yr,s/i),this.radius+=s}return this}union(e){return e.isEmpty()?this:this.isEmpty()?(this.copy(e),this):(this.center.equals(e.center)===!0?this.radius=Math.max(this.radius,e.radius):(Ol.subVectors(e.center,this.center).setLength(e.radius),this.expandByPoint(Yr.copy(e.center).add(Ol)),this.expandByPoint(Yr.copy(e.center).sub(Ol))),this)}equals(e){return e.center.equals(this.center)&&e.radius===this.radius}clone(){return new this.constructor().copy(this)}toJSON(){return{radius:this.radius,center:this.center.toArray()}}fromJSON(e){return this.radius=e.radius,this.center.fromArray(e.center),this}}let __=0;const Qn=new Wt,Bl=new zn,cr=new W,Xn=new Ma,$r=new Ma,En=new W;class si extends Gs{constructor(){super(),this.isBufferGeometry=!0,Object.defineProperty(this,"id",{value:__++}),this.uuid=Lr(),this.name="",this.type="BufferGeometry",this.index=null,this.indirect=null,this.indirectOffset=0,this.attributes={},this.morphAttributes={},this.morphTargetsRelative=!1,this.groups=[],this.boundingBox=null,this.boundingSphere=null,this.drawRange={start:0,count:1/0},this.userData={},this._transformed=!1}getIndex(){return this.index}setIndex(e){return Array.isArray(e)?this.index=new($g(e)?mp:pp)(e,1):this.index=e,this}setIndirect(e,t=0){return this.indirect=e,this.indirectOffset=t,this}getIndirect(){return this.indirect}getAttribute(e){return this.attributes[e]}setAttribute(e,t){return this.attributes[e]=t,this}deleteAttribute(e){return delete this.attributes[e],this}hasAttribute(e){return this.attributes[e]!==void 0}addGroup(e,t,i=0){this.groups.push({start:e,count:t,materialIndex:i})}clearGroups(){this.groups=[]}setDrawRange(e,t){this.drawRange.start=e,this.drawRange.count=t}applyMatrix4(e){const t=this.attributes.position;t!==void 0&&(t.applyMatrix4(e),t.needsUpdate=!0);const i=this.attributes.normal;if(i!==void 0){const r=new it().getNormalMatrix(e);i.applyNormalMatrix(r),i.needsUpdate=!0}const s=this.attributes.tangent;return s!==void 0&&(s.transformDirection(e),s.needsUpdate=!0),this.boundingBox!==null&&this.computeBoundingBox(),this.boundingSphere!==null&&this.computeBoundingSphere(),this._transformed=!0,this}applyQuaternion(e){return Qn.makeRotationFromQuaternion(e),this.applyMatrix4(Qn),this}rotateX(e){return Qn.makeRotationX(e),this.applyMatrix4(Qn),this}rotateY(e){return Qn.makeRotationY(e),this.applyMatrix4(Qn),this}rotateZ(e){return Qn.makeRotationZ(e),this.applyMatrix4(Qn),this}translate(e,t,i){return Qn.makeTranslation(e,t,i),this.applyMatrix4(Qn),this}scale(e,t,i){return Qn.makeScale(e,t,i),this.applyMatrix4(Qn),this}lookAt(e){return Bl.lookAt(e),Bl.updateMatrix(),this.applyMatrix4(Bl.matrix),this}center(){return this.computeBoundingBox(),this.boundingBox.getCenter(cr).negate(),this.translate(cr.x,cr.y,cr.z),this}setFromPoints(e){const t=this.getAttribute("position");if(t===void 0){const i=[];for(let s=0,r=e.length;s<r;s++){const a=e[s];i.push(a.x,a.y,a.z||0)}this.setAttribute("position",new Yn(i,3))}else{const i=Math.min(e.length,t.count);for(let s=0;s<i;s++){const r=e[s];t.setXYZ(s,r.x,r.y,r.z||0)}e.length>t.count&&Je("BufferGeometry: Buffer size too small for points data. Use .dispose() and create a new geometry."),t.needsUpdate=!0}return this}computeBoundingBox(){this.boundingBox===null&&(this.boundingBox=new Ma);const e=this.attributes.position,t=this.morphAttributes.position;if(e&&e.isGLBufferAttribute){Mt("BufferGeometry.computeBoundingBox(): GLBufferAttribute requires a manual bounding box.",this),this.boundingBox.set(new W(-1/0,-1/0,-1/0),new W(1/0,1/0,1/0));return}if(e!==void 0){if(this.boundingBox.setFromBufferAttribute(e),t)for(let i=0,s=t.length;i<s;i++){const r=t[i];Xn.setFromBufferAttribute(r),this.morphTargetsRelative?(En.addVectors(this.boundingBox.min,Xn.min),this.boundingBox.expandByPoint(En),En.addVectors(this.boundingBox.max,Xn.max),this.boundingBox.expandByPoint(En)):(this.boundingBox.expandByPoint(Xn.min),this.boundingBox.expandByPoint(Xn.max))}}else this.boundingBox.makeEmpty();(isNaN(this.boundingBox.min.x)||isNaN(this.boundingBox.min.y)||isNaN(this.boundingBox.min.z))&&Mt('BufferGeometry.computeBoundingBox(): Computed min/max have NaN values. The "position" attribute is likely to have NaN values.',this)}computeBoundingSphere(){this.boundingSphere===null&&(this.boundingSphere=new qo);const e=this.attributes.position,t=this.morphAttributes.position;if(e&&e.isGLBufferAttribute){Mt("BufferGeometry.computeBoundingSphere(): GLBufferAttribute requires a manual bounding sphere.",this),this.boundingSphere.set(new W,1/0);return}if(e){const i=this.boundingSphere.center;if(Xn.setFromBufferAttribute(e),t)for(let r=0,a=t.length;r<a;r++){const o=t[r];$r.setFromBufferAttribute(o),this.morphTargetsRelative?(En.addVectors(Xn.min,$r.min),Xn.expandByPoint(En),En.addVectors(Xn.max,$r.max),Xn.expandByPoint(En)):(Xn.expandByPoint($r.min),Xn.expandByPoint($r.max))}Xn.getCenter(i);let s=0;for(let r=0,a=e.count;r<a;r++)En.fromBufferAttribute(e,r),s=Math.max(s,i.distanceToSquared(En));if(t)for(let r=0,a=t.length;r<a;r++){const o=t[r],l=this.morphTargetsRelative;for(let c=0,u=o.count;c<u;c++)En.fromBufferAttribute(o,c),l&&(cr.fromBufferAttribute(e,c),En.add(cr)),s=Math.max(s,i.distanceToSquared(En))}this.boundingSphere.radius=Math.sqrt(s),isNaN(this.boundingSphere.radius)&&Mt('BufferGeometry.computeBoundingSphere(): Computed radius is NaN. The "position" attribute is likely to have NaN values.',this)}}computeTangents(){const e=this.index,t=this.attributes;if(e===null||t.position===void 0||t.normal===void 0||t.uv===void 0){Mt("BufferGeometry: .computeTangents() failed. Missing required attributes (index, position, normal or uv)");return}const i=t.position,s=t.normal,r=t.uv;let a=this.getAttribute("tangent");(a===void 0||a.count!==i.count)&&(a=new Ni(new Float32Array(4*i.count),4),this.setAttribute("tangent",a));const o=[],l=[],c=new Uint8Array(i.count);for(let z=0;z<i.count;z++)o[z]=new W,l[z]=new W;const u=new W,d=new W,f=new W,h=new Ve,g=new Ve,M=new Ve,p=new W,m=new W;function x(z,N,L){c[z]=c[N]=c[L]=1,u.fromBufferAttribute(i,z),d.fromBufferAttribute(i,N),f.fromBufferAttribute(i,L),h.fromBufferAttribute(r,z),g.fromBufferAttribute(r,N),M.fromBufferAttribute(r,L),d.sub(u),f.sub(u),g.sub(h),M.sub(h);const G=1/(g.x*M.y-M.x*g.y);isFinite(G)&&(p.copy(d).multiplyScalar(M.y).addScaledVector(f,-g.y).multiplyScalar(G),m.copy(f).multiplyScalar(g.x).addScaledVector(d,-M.x).multiplyScalar(G),o[z].add(p),o[N].add(p),o[L].add(p),l[z].add(m),l[N].add(m),l[L].add(m))}let A=this.groups;A.length===0&&(A=[{start:0,count:e.count}]);for(let z=0,N=A.length;z<N;++z){const L=A[z],G=L.start,k=L.count;for(let I=G,V=G+k;I<V;I+=3)x(e.getX(I+0),e.getX(I+1),e.getX(I+2))}const S=new W,R=new W,w=new W,_=new W;function b(z){w.fromBufferAttribute(s,z),_.copy(w);const N=o[z];S.copy(N),S.sub(w.multiplyScalar(w.dot(N))).normalize(),R.crossVectors(_,N);const G=R.dot(l[z])<0?-1:1;a.setXYZW(z,S.x,S.y,S.z,G)}for(let z=0,N=i.count;z<N;++z)c[z]&&b(z);this._transformed=!0}computeVertexNormals(){const e=this.index,t=this.getAttribute("position");if(t!==void 0){let i=this.getAttribute("normal");if(i===void 0||i.count!==t.count)i=new Ni(new Float32Array(t.count*3),3),this.setAttribute("normal",i);else for(let f=0,h=i.count;f<h;f++)i.setXYZ(f,0,0,0);const s=new W,r=new W,a=new W,o=new W,l=new W,c=new W,u=new W,d=new W;if(e)for(let f=0,h=e.count;f<h;f+=3){const g=e.getX(f+0),M=e.getX(f+1),p=e.getX(f+2);s.fromBufferAttribute(t,g),r.fromBufferAttribute(t,M),a.fromBufferAttribute(t,p),u.subVectors(a,r),d.subVectors(s,r),u.cross(d),o.fromBufferAttribute(i,g),l.fromBufferAttribute(i,M),c.fromBufferAttribute(i,p),o.add(u),l.add(u),c.add(u),i.setXYZ(g,o.x,o.y,o.z),i.setXYZ(M,l.x,l.y,l.z),i.setXYZ(p,c.x,c.y,c.z)}else for(let f=0,h=t.count;f<h;f+=3)s.fromBufferAttribute(t,f+0),r.fromBufferAttribute(t,f+1),a.fromBufferAttribute(t,f+2),u.subVectors(a,r),d.subVectors(s,r),u.cross(d),i.setXYZ(f+0,u.x,u.y,u.z),i.setXYZ(f+1,u.x,u.y,u.z),i.setXYZ(f+2,u.x,u.y,u.z);this.normalizeNormals(),i.needsUpdate=!0}}normalizeNormals(){const e=this.attributes.normal;for(let t=0,i=e.count;t<i;t++)En.fromBufferAttribute(e,t),En.normalize(),e.setXYZ(t,En.x,En.y,En.z)}toNonIndexed(){function e(o,l){const c=o.array,u=o.itemSize,d=o.normalized,f=new c.constructor(l.length*u);let h=0,g=0;for(let M=0,p=l.length;M<p;M++){o.isInterleavedBufferAttribute?h=l[M]*o.data.stride+o.offset:h=l[M]*u;for(let m=0;m<u;m++)f[g++]=c[h++]}return new Ni(f,u,d)}if(this.index===null)return Je("BufferGeometry.toNonIndexed(): BufferGeometry is already non-indexed."),this;const t=new si,i=this.index.array,s=this.attributes;for(const o in s){const l=s[o],c=e(l,i);t.setAttribute(o,c)}const r=this.morphAttributes;for(const o in r){const l=[],c=r[o];for(let u=0,d=c.length;u<d;u++){const f=c[u],h=e(f,i);l.push(h)}t.morphAttributes[o]=l}t.morphTargetsRelative=this.morphTargetsRelative;const a=this.groups;for(let o=0,l=a.length;o<l;o++){const c=a[o];t.addGroup(c.start,c.count,c.materialIndex)}return t}toJSON(){const e={metadata:{version:4.7,type:"BufferGeometry",generator:"BufferGeometry.toJSON"}};if(e.uuid=this.uuid,e.type=this.parameters!==void 0&&this._transformed===!0?"BufferGeometry":this.type,e.name=this.name,Object.keys(this.userData).length>0&&(e.userData=this.userData),this.parameters!==void 0&&this._transformed!==!0){const l=this.parameters;for(const c in l)l[c]!==void 0&&(e[c]=l[c]);return e}e.data={attributes:{}};const t=this.index;t!==null&&(e.data.index={type:t.array.constructor.name,array:Array.prototype.slice.call(t.array)});const i=this.attributes;for(const l in i){const c=i[l];e.data.attributes[l]=c.toJSON(e.data)}const s={};let r=!1;for(const l in this.morphAttributes){const c=this.morphAttributes[l],u=[];for(let d=0,f=c.length;d<f;d++){const h=c[d];u.push(h.toJSON(e.data))}u.length>0&&(s[l]=u,r=!0)}r&&(e.data.morphAttributes=s,e.data.morphTargetsRelative=this.morphTargetsRelative);const a=this.groups;a.length>0&&(e.data.groups=JSON.parse(JSON.stringify(a)));const o=this.boundingSphere;return o!==null&&(e.data.boundingSphere=o.toJSON()),e}clone(){return new this.constructor().copy(this)}copy(e){this.index=null,this.attributes={},this.morphAttributes={},this.groups=[],this.boundingBox=null,this.boundingSphere=null;const t={};this.name=e.name;const i=e.index;i!==null&&this.setIndex(i.clone());const s=e.attributes;for(const c in s){const u=s[c];this.setAttribute(c,u.clone(t))}const r=e.morphAttributes;for(const c in r){const u=[],d=r[c];for(let f=0,h=d.length;f<h;f++)u.push(d[f].clone(t));this.morphAttributes[c]=u}this.morphTargetsRelative=e.morphTargetsRelative;const a=e.groups;for(let c=0,u=a.length;c<u;c++){const d=a[c];this.addGroup(d.start,d.count,d.materialIndex)}const o=e.boundingBox;o!==null&&(this.boundingBox=o.clone());const l=e.boundingSphere;return l!==null&&(this.boundingSphere=l.clone()),this.drawRange.start=e.drawRange.start,this.drawRange.count=e.drawRange.count,this.userData=e.userData,this._transformed=e._transformed,this}dispose(){this.dispatchEvent({type:"dispose"})}}const zl=new W,v_=new W,x_=new it;class hs{constructor(e=new W(1,0,0),t=0){this.isPlane=!0,this.normal=e,this.constant=t}set(e,t){return this.normal.copy(e),this.constant=t,this}setComponents(e,t,i,s){return this.normal.set(e,t,i),this.constant=s,this}setFromNormalAndCoplanarPoint(e,t){return this.normal.copy(e),this.constant=-t.dot(this.normal),this}setFromCoplanarPoints(e,t,i){const s=zl.subVectors(i,t).cross(v_.subVectors(e,t)).normalize();return this.setFromNormalAndCoplanarPoint(s,e),this}copy(e){return this.normal.copy(e.normal),this.constant=e.constant,this}normalize(){const e=1/this.normal.length();return this.normal.multiplyScalar(e),this.constant*=e,this}negate(){return this.constant*=-1,this.normal.negate(),this}distanceToPoint(e){return this.normal.dot(e)+this.constant}distanceToSphere(e){return this.distanceToPoint(e.center)-e.radius}projectPoint(e,t){return t.copy(e).addScaledVector(this.normal,-this.distanceToPoint(e))}intersectLine(e,t,i=!0){const s=e.delta(zl),r=this.normal.dot(s);if(r===0)return this.distanceToPoint(e.start)===0?t.copy(e.start):null;const a=-(e.start.dot(this.normal)+this.constant)/r;return i===!0&&(a<0||a>1)?null:t.copy(e.start).addScaledVector(s,a)}intersectsLine(e){const t=this.distanceToPoint(e.start),i=this.distanceToPoint(e.end);return t<0&&i>0||i<0&&t>0}intersectsBox(e){return e.intersectsPlane(this)}intersectsSphere(e){return e.intersectsPlane(this)}coplanarPoint(e){return e.copy(this.normal).multiplyScalar(-this.constant)}applyMatrix4(e,t){const i=t||x_.getNormalMatrix(e),s=this.coplanarPoint(zl).applyMatrix4(e),r=this.normal.applyMatrix3(i).normalize();return this.constant=-s.dot(r),this}translate(e){return this.constant-=e.dot(this.normal),this}equals(e){return e.normal.equals(this.normal)&&e.constant===this.constant}clone(){return new this.constructor().copy(this)}toJSON(){return{normal:this.normal.toArray(),constant:this.constant}}fromJSON(e){return this.normal.fromArray(e.normal),this.constant=e.constant,this}}let S_=0;class ya extends Gs{constructor(){super(),this.isMaterial=!0,Object.defineProperty(this,"id",{value:S_++}),this.uuid=Lr(),this.name="",this.type="Material",this.blending=_r,this.side=Us,this.vertexColors=!1,this.opacity=1,this.transparent=!1,this.alphaHash=!1,this.blendSrc=Vd,this.blendDst=Wd,this.blendEquation=dr,this.blendSrcAlpha=null,this.blendDstAlpha=null,this.blendEquationAlpha=null,this.blendColor=new yt(0,0,0),this.blendAlpha=0,this.depthFunc=ha,this.depthTest=!0,this.depthWrite=!0,this.stencilWriteMask=255,this.stencilFunc=kg,this.stencilRef=0,this.stencilFuncMask=255,this.stencilFail=xl,this.stencilZFail=xl,this.stencilZPass=xl,this.stencilWrite=!1,this.clippingPlanes=null,this.clipIntersection=!1,this.clipShadows=!1,this.shadowSide=null,this.colorWrite=!0,this.precision=null,this.polygonOffset=!1,this.polygonOffsetFactor=0,this.polygonOffsetUnits=0,this.dithering=!1,this.alphaToCoverage=!1,this.premultipliedAlpha=!1,this.forceSinglePass=!1,this.allowOverride=!0,this.visible=!0,this.toneMapped=!0,this.userData={},this.version=0,this._alphaTest=0}get alphaTest(){return this._alphaTest}set alphaTest(e){this._alphaTest>0!=e>0&&this.version++,this._alphaTest=e}onBeforeRender(){}onBeforeCompile(){}customProgramCacheKey(){return this.onBeforeCompile.toString()}setValues(e){if(e!==void 0)for(const t in e){const i=e[t];if(i===void 0){Je(`Material: parameter '${t}' has value of undefined.`);continue}const s=this[t];if(s===void 0){Je(`Material: '${t}' is not a property of THREE.${this.type}.`);continue}s&&s.isColor?s.set(i):s&&s.isVector2&&i&&i.isVector2||s&&s.isEuler&&i&&i.isEuler||s&&s.isVector3&&i&&i.isVector3?s.copy(i):this[t]=i}}toJSON(e){const t=e===void 0||typeof e=="string";t&&(e={textures:{},images:{}});const i={metadata:{version:4.7,type:"Material",generator:"Material.toJSON"}};i.uuid=this.uuid,i.type=this.type,i.blending=this.blending,i.side=this.side,i.shadowSide=this.shadowSide,i.vertexColors=this.vertexColors,i.opacity=this.opacity,i.transparent=this.transparent,i.blendSrc=this.blendSrc,i.blendDst=this.blendDst,i.blendEquation=this.blendEquation,i.blendSrcAlpha=this.blendSrcAlpha,i.blendDstAlpha=this.blendDstAlpha,i.blendEquationAlpha=this.blendEquationAlpha,i.blendColor=this.blendColor.getHex(),i.blendAlpha=this.blendAlpha,i.depthFunc=this.depthFunc,i.depthTest=this.depthTest,i.depthWrite=this.depthWrite,i.colorWrite=this.colorWrite,i.clipIntersection=this.clipIntersection,i.clipShadows=this.clipShadows,i.stencilWriteMask=this.stencilWriteMask,i.stencilFunc=this.stencilFunc,i.stencilRef=this.stencilRef,i.stencilFuncMask=this.stencilFuncMask,i.stencilFail=this.stencilFail,i.stencilZFail=this.stencilZFail,i.stencilZPass=this.stencilZPass,i.stencilWrite=this.stencilWrite,i.polygonOffset=this.polygonOffset,i.polygonOffsetFactor=this.polygonOffsetFactor,i.polygonOffsetUnits=this.polygonOffsetUnits,i.dithering=this.dithering,i.alphaTest=this.alphaTest,i.alphaHash=this.alphaHash,i.alphaToCoverage=this.alphaToCoverage,i.premultipliedAlpha=this.premultipliedAlpha,i.forceSinglePass=this.forceSinglePass,i.allowOverride=this.allowOverride,i.visible=this.visible,i.toneMapped=this.toneMapped,i.name=this.name,this.color&&this.color.isColor&&(i.color=this.color.getHex()),this.roughness!==void 0&&(i.roughness=this.roughness),this.metalness!==void 0&&(i.metalness=this.metalness),this.sheen!==void 0&&(i.sheen=this.sheen),this.sheenColor&&this.sheenColor.isColor&&(i.sheenColor=this.sheenColor.getHex()),this.sheenRoughness!==void 0&&(i.sheenRoughness=this.sheenRoughness),this.emissive&&this.emissive.isColor&&(i.emissive=this.emissive.getHex()),this.emissiveIntensity!==void 0&&(i.emissiveIntensity=this.emissiveIntensity),this.specular&&this.specular.isColor&&(i.specular=this.specular.getHex()),this.specularIntensity!==void 0&&(i.specularIntensity=this.specularIntensity),this.specularColor&&this.specularColor.isColor&&(i.specularColor=this.specularColor.getHex()),this.shininess!==void 0&&(i.shininess=this.shininess),this.clearcoat!==void 0&&(i.clearcoat=this.clearcoat),this.clearcoatRoughness!==void 0&&(i.clearcoatRoughness=this.clearcoatRoughness),this.diffuseRoughness!==void 0&&(i.diffuseRoughness=this.diffuseRoughness),this.diffuseRoughnessMap&&this.diffuseRoughnessMap.isTexture&&(i.diffuseRoughnessMap=this.diffuseRoughnessMap.toJSON(e).uuid),this.clearcoatMap&&this.clearcoatMap.isTexture&&(i.clearcoatMap=this.clearcoatMap.toJSON(e).uuid),this.clearcoatRoughnessMap&&this.clearcoatRoughnessMap.isTexture&&(i.clearcoatRoughnessMap=this.clearcoatRoughnessMap.toJSON(e).uuid),this.clearcoatNormalMap&&this.clearcoatNormalMap.isTexture&&(i.clearcoatNormalMap=this.clearcoatNormalMap.toJSON(e).uuid,i.clearcoatNormalScale=this.clearcoatNormalScale.toArray()),this.sheenColorMap&&this.sheenColorMap.isTexture&&(i.sheenColorMap=this.sheenColorMap.toJSON(e).uuid),this.sheenRoughnessMap&&this.sheenRoughnessMap.isTexture&&(i.sheenRoughnessMap=this.sheenRoughnessMap.toJSON(e).uuid),this.dispersion!==void 0&&(i.dispersion=this.dispersion),this.retroreflectivity!==void 0&&(i.retroreflectivity=this.retroreflectivity),this.iridescence!==void 0&&(i.iridescence=this.iridescence),this.iridescenceIOR!==void 0&&(i.iridescenceIOR=this.iridescenceIOR),this.iridescenceThicknessMinimum!==void 0&&(i.iridescenceThicknessMinimum=this.iridescenceThicknessMinimum),this.iridescenceThicknessMaximum!==void 0&&(i.iridescenceThicknessMaximum=this.iridescenceThicknessMaximum),this.iridescenceMap&&this.iridescenceMap.isTexture&&(i.iridescenceMap=this.iridescenceMap.toJSON(e).uuid),this.iridescenceThicknessMap&&this.iridescenceThicknessMap.isTexture&&(i.iridescenceThicknessMap=this.iridescenceThicknessMap.toJSON(e).uuid),this.anisotropy!==void 0&&(i.anisotropy=this.anisotropy),this.anisotropyRotation!==void 0&&(i.anisotropyRotation=this.anisotropyRotation),this.anisotropyMap&&this.anisotropyMap.isTexture&&(i.anisotropyMap=this.anisotropyMap.toJSON(e).uuid),this.map&&this.map.isTexture&&(i.map=this.map.toJSON(e).uuid),this.matcap&&this.matcap.isTexture&&(i.matcap=this.matcap.toJSON(e).uuid),this.alphaMap&&this.alphaMap.isTexture&&(i.alphaMap=this.alphaMap.toJSON(e).uuid),this.lightMap&&this.lightMap.isTexture&&(i.lightMap=this.lightMap.toJSON(e).uuid,i.lightMapIntensity=this.lightMapIntensity),this.aoMap&&this.aoMap.isTexture&&(i.aoMap=this.aoMap.toJSON(e).uuid,i.aoMapIntensity=this.aoMapIntensity),this.bumpMap&&this.bumpMap.isTexture&&(i.bumpMap=this.bumpMap.toJSON(e).uuid,i.bumpScale=this.bumpScale),this.normalMap&&this.normalMap.isTexture&&(i.normalMap=this.normalMap.toJSON(e).uuid,i.normalMapType=this.normalMapType,i.normalScale=this.normalScale.toArray()),this.displacementMap&&this.displacementMap.isTexture&&(i.displacementMap=this.displacementMap.toJSON(e).uuid,i.displacementScale=this.displacementScale,i.displacementBias=this.displacementBias),this.roughnessMap&&this.roughnessMap.isTexture&&(i.roughnessMap=this.roughnessMap.toJSON(e).uuid),this.metalnessMap&&this.metalnessMap.isTexture&&(i.metalnessMap=this.metalnessMap.toJSON(e).uuid),this.emissiveMap&&this.emissiveMap.isTexture&&(i.emissiveMap=this.emissiveMap.toJSON(e).uuid),this.specularMap&&this.specularMap.isTexture&&(i.specularMap=this.specularMap.toJSON(e).uuid),this.specularIntensityMap&&this.specularIntensityMap.isTexture&&(i.specularIntensityMap=this.specularIntensityMap.toJSON(e).uuid),this.specularColorMap&&this.specularColorMap.isTexture&&(i.specularColorMap=this.specularColorMap.toJSON(e).uuid),this.envMap&&this.envMap.isTexture&&(i.envMap=this.envMap.toJSON(e).uuid,this.combine!==void 0&&(i.combine=this.combine)),this.envMapRotation!==void 0&&(i.envMapRotation=this.envMapRotation.toArray()),this.envMapIntensity!==void 0&&(i.envMapIntensity=this.envMapIntensity),this.reflectivity!==void 0&&(i.reflectivity=this.reflectivity),this.refractionRatio!==void 0&&(i.refractionRatio=this.refractionRatio),this.gradientMap&&this.gradientMap.isTexture&&(i.gradientMap=this.gradientMap.toJSON(e).uuid),this.transmission!==void 0&&(i.transmission=this.transmission),this.transmissionMap&&this.transmissionMap.isTexture&&(i.transmissionMap=this.transmissionMap.toJSON(e).uuid),this.thickness!==void 0&&(i.thickness=this.thickness),this.thicknessMap&&this.thicknessMap.isTexture&&(i.thicknessMap=this.thicknessMap.toJSON(e).uuid),this.attenuationDistance!==void 0&&(i.attenuationDistance=this.attenuationDistance),this.attenuationColor!==void 0&&(i.attenuationColor=this.attenuationColor.getHex()),this.size!==void 0&&(i.size=this.size),this.sizeAttenuation!==void 0&&(i.sizeAttenuation=this.sizeAttenuation),Array.isArray(this.clippingPlanes)&&this.clippingPlanes.length>0&&(i.clippingPlanes=this.clippingPlanes.map(r=>r.toJSON())),this.rotation!==void 0&&(i.rotation=this.rotation),this.depthPacking!==void 0&&(i.depthPacking=this.depthPacking),this.linewidth!==void 0&&(i.linewidth=this.linewidth),this.linecap!==void 0&&(i.linecap=this.linecap),this.linejoin!==void 0&&(i.linejoin=this.linejoin),this.dashSize!==void 0&&(i.dashSize=this.dashSize),this.gapSize!==void 0&&(i.gapSize=this.gapSize),this.scale!==void 0&&(i.scale=this.scale),this.wireframe!==void 0&&(i.wireframe=this.wireframe),this.wireframeLinewidth!==void 0&&(i.wireframeLinewidth=this.wireframeLinewidth),this.wireframeLinecap!==void 0&&(i.wireframeLinecap=this.wireframeLinecap),this.wireframeLinejoin!==void 0&&(i.wireframeLinejoin=this.wireframeLinejoin),this.flatShading!==void 0&&(i.flatShading=this.flatShading),this.fog!==void 0&&(i.fog=this.fog),Object.keys(this.userData).length>0&&(i.userData=this.userData);function s(r){const a=[];for(const o in r){const l=r[o];delete l.metadata,a.push(l)}return a}if(t){const r=s(e.textures),a=s(e.images);r.length>0&&(i.textures=r),a.length>0&&(i.images=a)}return i}fromJSON(e,t){if(e.uuid!==void 0&&(this.uuid=e.uuid),e.name!==void 0&&(this.name=e.name),e.color!==void 0&&this.color!==void 0&&this.color.setHex(e.color),e.roughness!==void 0&&(this.roughness=e.roughness),e.metalness!==void 0&&(this.metalness=e.metalness),e.sheen!==void 0&&(this.sheen=e.sheen),e.sheenColor!==void 0&&(this.sheenColor=new yt().setHex(e.sheenColor)),e.sheenRoughness!==void 0&&(this.sheenRoughness=e.sheenRoughness),e.emissive!==void 0&&this.emissive!==void 0&&this.emissive.setHex(e.emissive),e.specular!==void 0&&this.specular!==void 0&&this.specular.setHex(e.specular),e.specularIntensity!==void 0&&(this.specularIntensity=e.specularIntensity),e.specularColor!==void 0&&this.specularColor!==void 0&&this.specularColor.setHex(e.specularColor),e.shininess!==void 0&&(this.shininess=e.shininess),e.clearcoat!==void 0&&(this.clearcoat=e.clearcoat),e.clearcoatRoughness!==void 0&&(this.clearcoatRoughness=e.clearcoatRoughness),e.diffuseRoughness!==void 0&&(this.diffuseRoughness=e.diffuseRoughness),e.dispersion!==void 0&&(this.dispersion=e.dispersion),e.retroreflectivity!==void 0&&(this.retroreflectivity=e.retroreflectivity),e.iridescence!==void 0&&(this.iridescence=e.iridescence),e.iridescenceIOR!==void 0&&(this.iridescenceIOR=e.iridescenceIOR),e.iridescenceThicknessMinimum!==void 0&&(this.iridescenceThicknessMinimum=e.iridescenceThicknessMinimum),e.iridescenceThicknessMaximum!==void 0&&(this.iridescenceThicknessMaximum=e.iridescenceThicknessMaximum),e.iridescenceThicknessRange!==void 0&&(this.iridescenceThicknessMinimum=e.iridescenceThicknessRange[0],this.iridescenceThicknessMaximum=e.iridescenceThicknessRange[1]),e.transmission!==void 0&&(this.transmission=e.transmission),e.thickness!==void 0&&(this.thickness=e.thickness),e.attenuationDistance!==void 0&&(this.attenuationDistance=e.attenuationDistance),e.attenuationColor!==void 0&&this.attenuationColor!==void 0&&this.attenuationColor.setHex(e.attenuationColor),e.anisotropy!==void 0&&(this.anisotropy=e.anisotropy),e.anisotropyRotation!==void 0&&(this.anisotropyRotation=e.anisotropyRotation),e.fog!==void 0&&(this.fog=e.fog),e.flatShading!==void 0&&(this.flatShading=e.flatShading),e.blending!==void 0&&(this.blending=e.blending),e.combine!==void 0&&(this.combine=e.combine),e.side!==void 0&&(this.side=e.side),e.shadowSide!==void 0&&(this.shadowSide=e.shadowSide),e.opacity!==void 0&&(this.opacity=e.opacity),e.transparent!==void 0&&(this.transparent=e.transparent),e.alphaTest!==void 0&&(this.alphaTest=e.alphaTest),e.alphaHash!==void 0&&(this.alphaHash=e.alphaHash),e.depthFunc!==void 0&&(this.depthFunc=e.depthFunc),e.depthTest!==void 0&&(this.depthTest=e.depthTest),e.depthWrite!==void 0&&(this.depthWrite=e.depthWrite),e.colorWrite!==void 0&&(this.colorWrite=e.colorWrite),e.clippingPlanes!==void 0&&(this.clippingPlanes=e.clippingPlanes.map(i=>new hs().fromJSON(i))),e.clipIntersection!==void 0&&(this.clipIntersection=e.clipIntersection),e.clipShadows!==void 0&&(this.clipShadows=e.clipShadows),e.depthPacking!==void 0&&(this.depthPacking=e.depthPacking),e.blendSrc!==void 0&&(this.blendSrc=e.blendSrc),e.blendDst!==void 0&&(this.blendDst=e.blendDst),e.blendEquation!==void 0&&(this.blendEquation=e.blendEquation),e.blendSrcAlpha!==void 0&&(this.blendSrcAlpha=e.blendSrcAlpha),e.blendDstAlpha!==void 0&&(this.blendDstAlpha=e.blendDstAlpha),e.blendEquationAlpha!==void 0&&(this.blendEquationAlpha=e.blendEquationAlpha),e.blendColor!==void 0&&this.blendColor!==void 0&&this.blendColor.setHex(e.blendColor),e.blendAlpha!==void 0&&(this.blendAlpha=e.blendAlpha),e.stencilWriteMask!==void 0&&(this.stencilWriteMask=e.stencilWriteMask),e.stencilFunc!==void 0&&(this.stencilFunc=e.stencilFunc),e.stencilRef!==void 0&&(this.stencilRef=e.stencilRef),e.stencilFuncMask!==void 0&&(this.stencilFuncMask=e.stencilFuncMask),e.stencilFail!==void 0&&(this.stencilFail=e.stencilFail),e.stencilZFail!==void 0&&(this.stencilZFail=e.stencilZFail),e.stencilZPass!==void 0&&(this.stencilZPass=e.stencilZPass),e.stencilWrite!==void 0&&(this.stencilWrite=e.stencilWrite),e.wireframe!==void 0&&(this.wireframe=e.wireframe),e.wireframeLinewidth!==void 0&&(this.wireframeLinewidth=e.wireframeLinewidth),e.wireframeLinecap!==void 0&&(this.wireframeLinecap=e.wireframeLinecap),e.wireframeLinejoin!==void 0&&(this.wireframeLinejoin=e.wireframeLinejoin),e.rotation!==void 0&&(this.rotation=e.rotation),e.linewidth!==void 0&&(this.linewidth=e.linewidth),e.linecap!==void 0&&(this.linecap=e.linecap),e.linejoin!==void 0&&(this.linejoin=e.linejoin),e.dashSize!==void 0&&(this.dashSize=e.dashSize),e.gapSize!==void 0&&(this.gapSize=e.gapSize),e.scale!==void 0&&(this.scale=e.scale),e.polygonOffset!==void 0&&(this.polygonOffset=e.polygonOffset),e.polygonOffsetFactor!==void 0&&(this.polygonOffsetFactor=e.polygonOffsetFactor),e.polygonOffsetUnits!==void 0&&(this.polygonOffsetUnits=e.polygonOffsetUnits),e.dithering!==void 0&&(this.dithering=e.dithering),e.alphaToCoverage!==void 0&&(this.alphaToCoverage=e.alphaToCoverage),e.premultipliedAlpha!==void 0&&(this.premultipliedAlpha=e.premultipliedAlpha),e.forceSinglePass!==void 0&&(this.forceSinglePass=e.forceSinglePass),e.allowOverride!==void 0&&(this.allowOverride=e.allowOverride),e.visible!==void 0&&(this.visible=e.visible),e.toneMapped!==void 0&&(this.toneMapped=e.toneMapped),e.userData!==void 0&&(this.userData=e.userData),e.vertexColors!==void 0&&(typeof e.vertexColors=="number"?this.vertexColors=e.vertexColors>0:this.vertexColors=e.vertexColors),e.size!==void 0&&(this.size=e.size),e.sizeAttenuation!==void 0&&(this.sizeAttenuation=e.sizeAttenuation),e.map!==void 0&&(this.map=t[e.map]||null),e.matcap!==void 0&&(this.matcap=t[e.matcap]||null),e.alphaMap!==void 0&&(this.alphaMap=t[e.alphaMap]||null),e.bumpMap!==void 0&&(this.bumpMap=t[e.bumpMap]||null),e.bumpScale!==void 0&&(this.bumpScale=e.bumpScale),e.normalMap!==void 0&&(this.normalMap=t[e.normalMap]||null),e.normalMapType!==void 0&&(this.normalMapType=e.normalMapType),e.normalScale!==void 0){let i=e.normalScale;Array.isArray(i)===!1&&(i=[i,i]),this.normalScale=new Ve().fromArray(i)}return e.displacementMap!==void 0&&(this.displacementMap=t[e.displacementMap]||null),e.displacementScale!==void 0&&(this.displacementScale=e.displacementScale),e.displacementBias!==void 0&&(this.displacementBias=e.displacementBias),e.roughnessMap!==void 0&&(this.roughnessMap=t[e.roughnessMap]||null),e.metalnessMap!==void 0&&(this.metalnessMap=t[e.metalnessMap]||null),e.emissiveMap!==void 0&&(this.emissiveMap=t[e.emissiveMap]||null),e.emissiveIntensity!==void 0&&(this.emissiveIntensity=e.emissiveIntensity),e.specularMap!==void 0&&(this.specularMap=t[e.specularMap]||null),e.specularIntensityMap!==void 0&&(this.specularIntensityMap=t[e.specularIntensityMap]||null),e.specularColorMap!==void 0&&(this.specularColorMap=t[e.specularColorMap]||null),e.envMap!==void 0&&(this.envMap=t[e.envMap]||null),e.envMapRotation!==void 0&&this.envMapRotation.fromArray(e.envMapRotation),e.envMapIntensity!==void 0&&(this.envMapIntensity=e.envMapIntensity),e.reflectivity!==void 0&&(this.reflectivity=e.reflectivity),e.refractionRatio!==void 0&&(this.refractionRatio=e.refractionRatio),e.lightMap!==void 0&&(this.lightMap=t[e.lightMap]||null),e.lightMapIntensity!==void 0&&(this.lightMapIntensity=e.lightMapIntensity),e.aoMap!==void 0&&(this.aoMap=t[e.aoMap]||null),e.aoMapIntensity!==void 0&&(this.aoMapIntensity=e.aoMapIntensity),e.gradientMap!==void 0&&(this.gradientMap=t[e.gradientMap]||null),e.clearcoatMap!==void 0&&(this.clearcoatMap=t[e.clearcoatMap]||null),e.clearcoatRoughnessMap!==void 0&&(this.clearcoatRoughnessMap=t[e.clearcoatRoughnessMap]||null),e.clearcoatNormalMap!==void 0&&(this.clearcoatNormalMap=t[e.clearcoatNormalMap]||null),e.clearcoatNormalScale!==void 0&&(this.clearcoatNormalScale=new Ve().fromArray(e.clearcoatNormalScale)),e.diffuseRoughnessMap!==void 0&&(this.diffuseRoughnessMap=t[e.diffuseRoughnessMap]||null),e.iridescenceMap!==void 0&&(this.iridescenceMap=t[e.iridescenceMap]||null),e.iridescenceThicknessMap!==void 0&&(this.iridescenceThicknessMap=t[e.iridescenceThicknessMap]||null),e.transmissionMap!==void 0&&(this.transmissionMap=t[e.transmissionMap]||null),e.thicknessMap!==void 0&&(this.thicknessMap=t[e.thicknessMap]||null),e.anisotropyMap!==void 0&&(this.anisotropyMap=t[e.anisotropyMap]||null),e.sheenColorMap!==void 0&&(this.sheenColorMap=t[e.sheenColorMap]||null),e.sheenRoughnessMap!==void 0&&(this.sheenRoughnessMap=t[e.sheenRoughnessMap]||null),this}clone(){return new this.constructor().copy(this)}copy(e){this.name=e.name,this.blending=e.blending,this.side=e.side,this.vertexColors=e.vertexColors,this.opacity=e.opacity,this.transparent=e.transparent,this.blendSrc=e.blendSrc,this.blendDst=e.blendDst,this.blendEquation=e.blendEquation,this.blendSrcAlpha=e.blendSrcAlpha,this.blendDstAlpha=e.blendDstAlpha,this.blendEquationAlpha=e.blendEquationAlpha,this.blendColor.copy(e.blendColor),this.blendAlpha=e.blendAlpha,this.depthFunc=e.depthFunc,this.depthTest=e.depthTest,this.depthWrite=e.depthWrite,this.stencilWriteMask=e.stencilWriteMask,this.stencilFunc=e.stencilFunc,this.stencilRef=e.stencilRef,this.stencilFuncMask=e.stencilFuncMask,this.stencilFail=e.stencilFail,this.stencilZFail=e.stencilZFail,this.stencilZPass=e.stencilZPass,this.stencilWrite=e.stencilWrite;const t=e.clippingPlanes;let i=null;if(t!==null){const s=t.length;i=new Array(s);for(let r=0;r!==s;++r)i[r]=t[r].clone()}return this.clippingPlanes=i,this.clipIntersection=e.clipIntersection,this.clipShadows=e.clipShadows,this.shadowSide=e.shadowSide,this.colorWrite=e.colorWrite,this.precision=e.precision,this.polygonOffset=e.polygonOffset,this.polygonOffsetFactor=e.polygonOffsetFactor,this.polygonOffsetUnits=e.polygonOffsetUnits,this.dithering=e.dithering,this.alphaTest=e.alphaTest,this.alphaHash=e.alphaHash,this.alphaToCoverage=e.alphaToCoverage,this.premultipliedAlpha=e.premultipliedAlpha,this.forceSinglePass=e.forceSinglePass,this.allowOverride=e.allowOverride,this.visible=e.visible,this.toneMapped=e.toneMapped,this.userData=JSON.parse(JSON.stringify(e.userData)),this}dispose(){this.dispatchEvent({type:"dispose"})}set needsUpdate(e){e===!0&&this.version++}}const qi=new W,kl=new W,Ga=new W,Ha=new W;class gp{constructor(e=new W,t=new W(0,0,-1)){this.origin=e,this.direction=t}set(e,t){return this.origin.copy(e),this.direction.copy(t),this}copy(e){return this.origin.copy(e.origin),this.direction.copy(e.direction),this}at(e,t){return t.copy(this.origin).addScaledVector(this.direction,e)}lookAt(e){return this.direction.copy(e).sub(this.origin).normalize(),this}recast(e){return this.origin.copy(this.at(e,qi)),this}closestPointToPoint(e,t){t.subVectors(e,this.origin);const i=t.dot(this.direction);return i<0?t.copy(this.origin):t.copy(this.origin).addScaledVector(this.direction,i)}distanceToPoint(e){return Math.sqrt(this.distanceSqToPoint(e))}distanceSqToPoint(e){const t=qi.subVectors(e,this.origin).dot(this.direction);return t<0?this.origin.distanceToSquared(e):(qi.copy(this.origin).addScaledVector(this.direction,t),qi.distanceToSquared(e))}distanceSqToSegment(e,t,i,s){kl.copy(e).add(t).multiplyScalar(.5),Ga.copy(t).sub(e).normalize(),Ha.copy(this.origin).sub(kl);const r=e.distanceTo(t)*.5,a=-this.direction.dot(Ga),o=Ha.dot(this.direction),l=-Ha.dot(Ga),c=Ha.lengthSq(),u=Math.abs(1-a*a);let d,f,h,g;if(u>0)if(d=a*l-o,f=a*o-l,g=r*u,d>=0)if(f>=-g)if(f<=g){const M=1/u;d*=M,f*=M,h=d*(d+a*f+2*o)+f*(a*d+f+2*l)+c}else f=r,d=Math.max(0,-(a*f+o)),h=-d*d+f*(f+2*l)+c;else f=-r,d=Math.max(0,-(a*f+o)),h=-d*d+f*(f+2*l)+c;else f<=-g?(d=Math.max(0,-(-a*r+o)),f=d>0?-r:Math.min(Math.max(-r,-l),r),h=-d*d+f*(f+2*l)+c):f<=g?(d=0,f=Math.min(Math.max(-r,-l),r),h=f*(f+2*l)+c):(d=Math.max(0,-(a*r+o)),f=d>0?r:Math.min(Math.max(-r,-l),r),h=-d*d+f*(f+2*l)+c);else f=a>0?-r:r,d=Math.max(0,-(a*f+o)),h=-d*d+f*(f+2*l)+c;return i&&i.copy(this.origin).addScaledVector(this.direction,d),s&&s.copy(kl).addScaledVector(Ga,f),h}intersectSphere(e,t){if(e.radius<0)return null;qi.subVectors(e.center,this.origin);const i=qi.dot(this.direction),s=qi.dot(qi)-i*i,r=e.radius*e.radius;if(s>r)return null;const a=Math.sqrt(r-s),o=i-a,l=i+a;return l<0?null:o<0?this.at(l,t):this.at(o,t)}intersectsSphere(e){return e.radius<0?!1:this.distanceSqToPoint(e.center)<=e.radius*e.radius}distanceToPlane(e){const t=e.normal.dot(this.direction);if(t===0)return e.distanceToPoint(this.origin)===0?0:null;const i=-(this.origin.dot(e.normal)+e.constant)/t;return i>=0?i:null}intersectPlane(e,t){const i=this.distanceToPlane(e);return i===null?null:this.at(i,t)}intersectsPlane(e){const t=e.distanceToPoint(this.origin);return t===0||e.normal.dot(this.direction)*t<0}intersectBox(e,t){let i,s,r,a,o,l;const c=1/this.direction.x,u=1/this.direction.y,d=1/this.direction.z,f=this.origin;return c>=0?(i=(e.min.x-f.x)*c,s=(e.max.x-f.x)*c):(i=(e.max.x-f.x)*c,s=(e.min.x-f.x)*c),u>=0?(r=(e.min.y-f.y)*u,a=(e.max.y-f.y)*u):(r=(e.max.y-f.y)*u,a=(e.min.y-f.y)*u),i>a||r>s||((r>i||isNaN(i))&&(i=r),(a<s||isNaN(s))&&(s=a),d>=0?(o=(e.min.z-f.z)*d,l=(e.max.z-f.z)*d):(o=(e.max.z-f.z)*d,l=(e.min.z-f.z)*d),i>l||o>s)||((o>i||i!==i)&&(i=o),(l<s||s!==s)&&(s=l),s<0)?null:this.at(i>=0?i:s,t)}intersectsBox(e){return this.intersectBox(e,qi)!==null}intersectTriangle(e,t,i,s,r){const a=this.origin,o=this.direction,l=o.x,c=o.y,u=o.z,d=e.x-a.x,f=e.y-a.y,h=e.z-a.z,g=t.x-a.x,M=t.y-a.y,p=t.z-a.z,m=i.x-a.x,x=i.y-a.y,A=i.z-a.z,S=Math.abs(l),R=Math.abs(c),w=Math.abs(u);let _,b,z,N,L,G,k,I,V,Z,B,ce;if(S>=R&&S>=w?(z=l,G=d,V=g,ce=m,l>=0?(_=c,b=u,N=f,L=h,k=M,I=p,Z=x,B=A):(_=u,b=c,N=h,L=f,k=p,I=M,Z=A,B=x)):R>=w?(z=c,G=f,V=M,ce=x,c>=0?(_=u,b=l,N=h,L=d,k=p,I=g,Z=A,B=m):(_=l,b=u,N=d,L=h,k=g,I=p,Z=m,B=A)):(z=u,G=h,V=p,ce=A,u>=0?(_=l,b=c,N=d,L=f,k=g,I=M,Z=m,B=x):(_=c,b=l,N=f,L=d,k=M,I=g,Z=x,B=m)),z===0)return null;const K=_/z,Q=b/z,ie=1/z,he=N-K*G,fe=L-Q*G,j=k-K*V,me=I-Q*V,ve=Z-K*ce,Ae=B-Q*ce,ye=ve*me-Ae*j,We=he*Ae-fe*ve,tt=j*fe-me*he;if(s){if(ye<0||We<0||tt<0)return null}else if((ye<0||We<0||tt<0)&&(ye>0||We>0||tt>0))return null;const Ge=ye+We+tt;if(Ge===0)return null;const lt=ie*(ye*G+We*V+tt*ce);return(Ge>0?lt<0:lt>0)?null:this.at(lt/Ge,r)}applyMatrix4(e){return this.origin.applyMatrix4(e),this.direction.transformDirection(e),this}equals(e){return e.origin.equals(this.origin)&&e.direction.equals(this.direction)}clone(){return new this.constructor().copy(this)}}class _p extends ya{constructor(e){super(),this.isMeshBasicMaterial=!0,this.type="MeshBasicMaterial",this.color=new yt(16777215),this.map=null,this.lightMap=null,this.lightMapIntensity=1,this.aoMap=null,this.aoMapIntensity=1,this.specularMap=null,this.alphaMap=null,this.envMap=null,this.envMapRotation=new Os,this.combine=Xd,this.reflectivity=1,this.refractionRatio=.98,this.wireframe=!1,this.wireframeLinewidth=1,this.wireframeLinecap="round",this.wireframeLinejoin="round",this.fog=!0,this.setValues(e)}copy(e){return super.copy(e),this.color.copy(e.color),this.map=e.map,this.lightMap=e.lightMap,this.lightMapIntensity=e.lightMapIntensity,this.aoMap=e.aoMap,this.aoMapIntensity=e.aoMapIntensity,this.specularMap=e.specularMap,this.alphaMap=e.alphaMap,this.envMap=e.envMap,this.envMapRotation.copy(e.envMapRotation),this.combine=e.combine,this.reflectivity=e.reflectivity,this.refractionRatio=e.refractionRatio,this.wireframe=e.wireframe,this.wireframeLinewidth=e.wireframeLinewidth,this.wireframeLinecap=e.wireframeLinecap,this.wireframeLinejoin=e.wireframeLinejoin,this.fog=e.fog,this}}const Kf=new Wt,ws=new gp,Va=new qo,Zf=new W,Wa=new W,Xa=new W,qa=new W,Gl=new W,Ya=new W,Jf=new W,$a=new W;class Ii extends zn{constructor(e=new si,t=new _p){super(),this.isMesh=!0,this.type="Mesh",this.geometry=e,this.material=t,this.morphTargetDictionary=void 0,this.morphTargetInfluences=void 0,this.count=1,this.updateMorphTargets()}copy(e,t){return super.copy(e,t),e.morphTargetInfluences!==void 0?this.morphTargetInfluences=e.morphTargetInfluences.slice():this.morphTargetInfluences=void 0,e.morphTargetDictionary!==void 0?this.morphTargetDictionary=Object.assign({},e.morphTargetDictionary):this.morphTargetDictionary=void 0,this.material=Array.isArray(e.material)?e.material.slice():e.material,this.geometry=e.geometry,this}updateMorphTargets(){const t=this.geometry.morphAttributes,i=Object.keys(t);if(i.length>0){const s=t[i[0]];if(s!==void 0){this.morphTargetInfluences=[],this.morphTargetDictionary={};for(let r=0,a=s.length;r<a;r++){const o=s[r].name||String(r);this.morphTargetInfluences.push(0),this.morphTargetDictionary[o]=r}}}}getVertexPosition(e,t){const i=this.geometry,s=i.attributes.position,r=i.morphAttributes.position,a=i.morphTargetsRelative;t.fromBufferAttribute(s,e);const o=this.morphTargetInfluences;if(r&&o){Ya.set(0,0,0);for(let l=0,c=r.length;l<c;l++){const u=o[l],d=r[l];u!==0&&(Gl.fromBufferAttribute(d,e),a?Ya.addScaledVector(Gl,u):Ya.addScaledVector(Gl.sub(t),u))}t.add(Ya)}return t}intersectsFrustum(e){return e.intersectsObject(this)}raycast(e,t){const i=this.geometry,s=this.material,r=this.matrixWorld;s!==void 0&&(i.boundingSphere===null&&i.computeBoundingSphere(),Va.copy(i.boundingSphere),Va.applyMatrix4(r),ws.copy(e.ray).recast(e.near),!(Va.containsPoint(ws.origin)===!1&&(ws.intersectSphere(Va,Zf)===null||ws.origin.distanceToSquared(Zf)>(e.far-e.near)**2))&&(Kf.copy(r).invert(),ws.copy(e.ray).applyMatrix4(Kf),!(i.boundingBox!==null&&ws.intersectsBox(i.boundingBox)===!1)&&this._computeIntersections(e,t,ws)))}_computeIntersections(e,t,i){let s;const r=this.geometry,a=this.material,o=r.index,l=r.attributes.position,c=r.attributes.uv,u=r.attributes.uv1,d=r.attributes.normal,f=r.groups,h=r.drawRange;if(o!==null)if(Array.isArray(a))for(let g=0,M=f.length;g<M;g++){const p=f[g],m=a[p.materialIndex],x=Math.max(p.start,h.start),A=Math.min(o.count,Math.min(p.start+p.count,h.start+h.count));for(let S=x,R=A;S<R;S+=3){const w=o.getX(S),_=o.getX(S+1),b=o.getX(S+2);s=Ka(this,m,e,i,c,u,d,w,_,b),s&&(s.faceIndex=Math.floor(S/3),s.face.materialIndex=p.materialIndex,t.push(s))}}else{const g=Math.max(0,h.start),M=Math.min(o.count,h.start+h.count);for(let p=g,m=M;p<m;p+=3){const x=o.getX(p),A=o.getX(p+1),S=o.getX(p+2);s=Ka(this,a,e,i,c,u,d,x,A,S),s&&(s.faceIndex=Math.floor(p/3),t.push(s))}}else if(l!==void 0)if(Array.isArray(a))for(let g=0,M=f.length;g<M;g++){const p=f[g],m=a[p.materialIndex],x=Math.max(p.start,h.start),A=Math.min(l.count,Math.min(p.start+p.count,h.start+h.count));for(let S=x,R=A;S<R;S+=3){const w=S,_=S+1,b=S+2;s=Ka(this,m,e,i,c,u,d,w,_,b),s&&(s.faceIndex=Math.floor(S/3),s.face.materialIndex=p.materialIndex,t.push(s))}}else{const g=Math.max(0,h.start),M=Math.min(l.count,h.start+h.count);for(let p=g,m=M;p<m;p+=3){const x=p,A=p+1,S=p+2;s=Ka(this,a,e,i,c,u,d,x,A,S),s&&(s.faceIndex=Math.floor(p/3),t.push(s))}}}}function M_(n,e,t,i,s,r,a,o){let l;if(e.side===Bn?l=i.intersectTriangle(a,r,s,!0,o):l=i.intersectTriangle(s,r,a,e.side===Us,o),l===null)return null;$a.copy(o),$a.applyMatrix4(n.matrixWorld);const c=t.ray.origin.distanceTo($a);return c<t.near||c>t.far?null:{distance:c,point:$a.clone(),object:n}}function Ka(n,e,t,i,s,r,a,o,l,c){n.getVertexPosition(o,Wa),n.getVertexPosition(l,Xa),n.getVertexPosition(c,qa);const u=M_(n,e,t,i,Wa,Xa,qa,Jf);if(u){const d=new W;pi.getBarycoord(Jf,Wa,Xa,qa,d),s&&(u.uv=pi.getInterpolatedAttribute(s,o,l,c,d,new Ve)),r&&(u.uv1=pi.getInterpolatedAttribute(r,o,l,c,d,new Ve)),a&&(u.normal=pi.getInterpolatedAttribute(a,o,l,c,d,new W),u.normal.dot(i.direction)>0&&u.normal.multiplyScalar(-1));const f={a:o,b:l,c,normal:new W,materialIndex:0};pi.getNormal(Wa,Xa,qa,f.normal),u.face=f,u.barycoord=d}return u}class y_ extends Fn{constructor(e=null,t=1,i=1,s,r,a,o,l,c=pn,u=pn,d,f){super(null,a,o,l,c,u,s,r,d,f),this.isDataTexture=!0,this.image={data:e,width:t,height:i},this.generateMipmaps=!1,this.flipY=!1,this.unpackAlignment=1}}class Hl extends Ni{constructor(e,t,i,s=1){super(e,t,i),this.isInstancedBufferAttribute=!0,this.meshPerAttribute=s}copy(e){return super.copy(e),this.meshPerAttribute=e.meshPerAttribute,this}toJSON(){const e=super.toJSON();return e.meshPerAttribute=this.meshPerAttribute,e.isInstancedBufferAttribute=!0,e}}const As=new qo,E_=new Ve(.5,.5),Za=new W;class Fo{constructor(e=new hs,t=new hs,i=new hs,s=new hs,r=new hs,a=new hs){this.planes=[e,t,i,s,r,a]}set(e,t,i,s,r,a){const o=this.planes;return o[0].copy(e),o[1].copy(t),o[2].copy(i),o[3].copy(s),o[4].copy(r),o[5].copy(a),this}copy(e){const t=this.planes;for(let i=0;i<6;i++)t[i].copy(e.planes[i]);return this}setFromProjectionMatrix(e,t=gi,i=!1){const s=this.planes,r=e.elements,a=r[0],o=r[1],l=r[2],c=r[3],u=r[4],d=r[5],f=r[6],h=r[7],g=r[8],M=r[9],p=r[10],m=r[11],x=r[12],A=r[13],S=r[14],R=r[15];if(s[0].setComponents(c-a,h-u,m-g,R-x).normalize(),s[1].setComponents(c+a,h+u,m+g,R+x).normalize(),s[2].setComponents(c+o,h+d,m+M,R+A).normalize(),s[3].setComponents(c-o,h-d,m-M,R-A).normalize(),i)s[4].setComponents(l,f,p,S).normalize(),s[5].setComponents(c-l,h-f,m-p,R-S).normalize();else if(s[4].setComponents(c-l,h-f,m-p,R-S).normalize(),t===gi)s[5].setComponents(c+l,h+f,m+p,R+S).normalize();else if(t===Io)s[5].setComponents(l,f,p,S).normalize();else throw new Error("THREE.Frustum.setFromProjectionMatrix(): Invalid coordinate system: "+t);return this}intersectsObject(e){if(e.boundingSphere!==void 0)e.boundingSphere===null&&e.computeBoundingSphere(),As.copy(e.boundingSphere).applyMatrix4(e.matrixWorld);else{const t=e.geometry;t.boundingSphere===null&&t.computeBoundingSphere(),As.copy(t.boundingSphere).applyMatrix4(e.matrixWorld)}return this.intersectsSphere(As)}intersectsSprite(e){As.center.set(0,0,0);const t=E_.distanceTo(e.center);return As.radius=.7071067811865476+t,As.applyMatrix4(e.matrixWorld),this.intersectsSphere(As)}intersectsSphere(e){const t=this.planes,i=e.center,s=-e.radius;for(let r=0;r<6;r++)if(t[r].distanceToPoint(i)<s)return!1;return!0}intersectsBox(e){const t=this.planes;for(let i=0;i<6;i++){const s=t[i];if(Za.x=s.normal.x>0?e.max.x:e.min.x,Za.y=s.normal.y>0?e.max.y:e.min.y,Za.z=s.normal.z>0?e.max.z:e.min.z,s.distanceToPoint(Za)<0)return!1}return!0}containsPoint(e){const t=this.planes;for(let i=0;i<6;i++)if(t[i].distanceToPoint(e)<0)return!1;return!0}clone(){return new this.constructor().copy(this)}}const Qf=new Wt;class Du{constructor(){this.coordinateSystem=gi,this._frustums=[],this._count=0}setFromArrayCamera(e){const t=e.cameras,i=this._frustums;for(let s=0;s<t.length;s++){const r=t[s];Qf.multiplyMatrices(r.projectionMatrix,r.matrixWorldInverse),i[s]===void 0&&(i[s]=new Fo),i[s].setFromProjectionMatrix(Qf,r.coordinateSystem,r.reversedDepth)}return this._count=t.length,this}getFrustum(e){return this._frustums[e]}intersectsObject(e){const t=this._frustums;for(let i=0;i<this._count;i++)if(t[i].intersectsObject(e))return!0;return!1}intersectsSprite(e){const t=this._frustums;for(let i=0;i<this._count;i++)if(t[i].intersectsSprite(e))return!0;return!1}intersectsSphere(e){const t=this._frustums;for(let i=0;i<this._count;i++)if(t[i].intersectsSphere(e))return!0;return!1}intersectsBox(e){const t=this._frustums;for(let i=0;i<this._count;i++)if(t[i].intersectsBox(e))return!0;return!1}containsPoint(e){const t=this._frustums;for(let i=0;i<this._count;i++)if(t[i].containsPoint(e))return!0;return!1}copy(e){this.coordinateSystem=e.coordinateSystem;const t=this._frustums,i=e._frustums;for(let s=0;s<e._count;s++)t[s]===void 0&&(t[s]=new Fo),t[s].copy(i[s]);return this._count=e._count,this}clone(){return new Du().copy(this)}}class vp extends ya{constructor(e){super(),this.isLineBasicMaterial=!0,this.type="LineBasicMaterial",this.color=new yt(16777215),this.map=null,this.linewidth=1,this.linecap="round",this.linejoin="round",this.fog=!0,this.setValues(e)}copy(e){return super.copy(e),this.color.copy(e.color),this.map=e.map,this.linewidth=e.linewidth,this.linecap=e.linecap,this.linejoin=e.linejoin,this.fog=e.fog,this}}const Oo=new W,Bo=new W,jf=new Wt,Kr=new gp,Ja=new qo,Vl=new W,eh=new W;class T_ extends zn{constructor(e=new si,t=new vp){super(),this.isLine=!0,this.type="Line",this.geometry=e,this.material=t,this.morphTargetDictionary=void 0,this.morphTargetInfluences=void 0,this.updateMorphTargets()}copy(e,t){return super.copy(e,t),e.morphTargetInfluences!==void 0?this.morphTargetInfluences=e.morphTargetInfluences.slice():this.morphTargetInfluences=void 0,e.morphTargetDictionary!==void 0?this.morphTargetDictionary=Object.assign({},e.morphTargetDictionary):this.morphTargetDictionary=void 0,this.material=Array.isArray(e.material)?e.material.slice():e.material,this.geometry=e.geometry,this}computeLineDistances(){const e=this.geometry;if(e.index===null){const t=e.attributes.position,i=[0];for(let s=1,r=t.count;s<r;s++)Oo.fromBufferAttribute(t,s-1),Bo.fromBufferAttribute(t,s),i[s]=i[s-1],i[s]+=Oo.distanceTo(Bo);e.setAttribute("lineDistance",new Yn(i,1))}else Je("Line.computeLineDistances(): Computation only possible with non-indexed BufferGeometry.");return this}intersectsFrustum(e){return e.intersectsObject(this)}raycast(e,t){const i=this.geometry,s=this.matrixWorld,r=e.params.Line.threshold,a=i.drawRange;if(i.boundingSphere===null&&i.computeBoundingSphere(),Ja.copy(i.boundingSphere),Ja.applyMatrix4(s),Ja.radius+=r,e.ray.intersectsSphere(Ja)===!1)return;jf.copy(s).invert(),Kr.copy(e.ray).applyMatrix4(jf);const o=r/((this.scale.x+this.scale.y+this.scale.z)/3),l=o*o,c=this.isLineSegments?2:1,u=i.index,f=i.attributes.position;if(u!==null){const h=Math.max(0,a.start),g=Math.min(u.count,a.start+a.count);for(let M=h,p=g-1;M<p;M+=c){const m=u.getX(M),x=u.getX(M+1),A=Qa(this,e,Kr,l,m,x,M);A&&t.push(A)}if(this.isLineLoop){const M=u.getX(g-1),p=u.getX(h),m=Qa(this,e,Kr,l,M,p,g-1);m&&t.push(m)}}else{const h=Math.max(0,a.start),g=Math.min(f.count,a.start+a.count);for(let M=h,p=g-1;M<p;M+=c){const m=Qa(this,e,Kr,l,M,M+1,M);m&&t.push(m)}if(this.isLineLoop){const M=Qa(this,e,Kr,l,g-1,h,g-1);M&&t.push(M)}}}updateMorphTargets(){const t=this.geometry.morphAttributes,i=Object.keys(t);if(i.length>0){const s=t[i[0]];if(s!==void 0){this.morphTargetInfluences=[],this.morphTargetDictionary={};for(let r=0,a=s.length;r<a;r++){const o=s[r].name||String(r);this.morphTargetInfluences.push(0),this.morphTargetDictionary[o]=r}}}}}function Qa(n,e,t,i,s,r,a){const o=n.geometry.attributes.position;if(Oo.fromBufferAttribute(o,s),Bo.fromBufferAttribute(o,r),t.distanceSqToSegment(Oo,Bo,Vl,eh)>i)return;Vl.applyMatrix4(n.matrixWorld);const c=e.ray.origin.distanceTo(Vl);if(!(c<e.near||c>e.far))return{distance:c,point:eh.clone().applyMatrix4(n.matrixWorld),index:a,face:null,faceIndex:null,barycoord:null,object:n}}class xp extends Fn{constructor(e=[],t=Mr,i,s,r,a,o,l,c,u){super(e,t,i,s,r,a,o,l,c,u),this.isCubeTexture=!0,this.flipY=!1}get images(){return this.image}set images(e){this.image=e}}class Er extends Fn{constructor(e,t,i=Ui,s,r,a,o=pn,l=pn,c,u=xs,d=1){if(u!==xs&&u!==gs)throw new Error("THREE.DepthTexture: format must be either THREE.DepthFormat or THREE.DepthStencilFormat");const f={width:e,height:t,depth:d};super(f,s,r,a,o,l,u,i,c),this.isDepthTexture=!0,this.flipY=!1,this.generateMipmaps=!1,this.compareFunction=null}copy(e){return super.copy(e),this.source=new Lu(Object.assign({},e.image)),this.compareFunction=e.compareFunction,this}toJSON(e){const t=super.toJSON(e);return t.compareFunction=this.compareFunction,t}}class Sp extends Er{constructor(e,t=Ui,i=Mr,s,r,a=pn,o=pn,l,c=xs){const u={width:e,height:e,depth:1},d=[u,u,u,u,u,u];super(e,e,t,i,s,r,a,o,l,c),this.image=d,this.isCubeDepthTexture=!0,this.isCubeTexture=!0}get images(){return this.image}set images(e){this.image=e}}class Mp extends Fn{constructor(e=null){super(),this.sourceTexture=e,this.isExternalTexture=!0}copy(e){return super.copy(e),this.sourceTexture=e.sourceTexture,this}}class Ea extends si{constructor(e=1,t=1,i=1,s=1,r=1,a=1){super(),this.type="BoxGeometry",this.parameters={width:e,height:t,depth:i,widthSegments:s,heightSegments:r,depthSegments:a};const o=this;s=Math.floor(s),r=Math.floor(r),a=Math.floor(a);const l=[],c=[],u=[],d=[];let f=0,h=0;g("z","y","x",-1,-1,i,t,e,a,r,0),g("z","y","x",1,-1,i,t,-e,a,r,1),g("x","z","y",1,1,e,i,t,s,a,2),g("x","z","y",1,-1,e,i,-t,s,a,3),g("x","y","z",1,-1,e,t,i,s,r,4),g("x","y","z",-1,-1,e,t,-i,s,r,5),this.setIndex(l),this.setAttribute("position",new Yn(c,3)),this.setAttribute("normal",new Yn(u,3)),this.setAttribute("uv",new Yn(d,2));function g(M,p,m,x,A,S,R,w,_,b,z){const N=S/_,L=R/b,G=S/2,k=R/2,I=w/2,V=_+1,Z=b+1;let B=0,ce=0;const K=new W;for(let Q=0;Q<Z;Q++){const ie=Q*L-k;for(let he=0;he<V;he++){const fe=he*N-G;K[M]=fe*x,K[p]=ie*A,K[m]=I,c.push(K.x,K.y,K.z),K[M]=0,K[p]=0,K[m]=w>0?1:-1,u.push(K.x,K.y,K.z),d.push(he/_),d.push(1-Q/b),B+=1}}for(let Q=0;Q<b;Q++)for(let ie=0;ie<_;ie++){const he=f+ie+V*Q,fe=f+ie+V*(Q+1),j=f+(ie+1)+V*(Q+1),me=f+(ie+1)+V*Q;l.push(he,fe,me),l.push(fe,j,me),ce+=6}o.addGroup(h,ce,z),h+=ce,f+=B}}copy(e){return super.copy(e),this.parameters=Object.assign({},e.parameters),this}static fromJSON(e){return new Ea(e.width,e.height,e.depth,e.widthSegments,e.heightSegments,e.depthSegments)}}class Fi{constructor(){this.type="Curve",this.arcLengthDivisions=200,this.needsUpdate=!1,this.cacheArcLengths=null}getPoint(){Je("Curve: .getPoint() not implemented.")}getPointAt(e,t){const i=this.getUtoTmapping(e);return this.getPoint(i,t)}getPoints(e=5){const t=[];for(let i=0;i<=e;i++)t.push(this.getPoint(i/e));return t}getSpacedPoints(e=5){const t=[];for(let i=0;i<=e;i++)t.push(this.getPointAt(i/e));return t}getLength(){const e=this.getLengths();return e[e.length-1]}getLengths(e=this.arcLengthDivisions){if(this.cacheArcLengths&&this.cacheArcLengths.length===e+1&&!this.needsUpdate)return this.cacheArcLengths;this.needsUpdate=!1;const t=[];let i,s=this.getPoint(0),r=0;t.push(0);for(let a=1;a<=e;a++)i=this.getPoint(a/e),r+=i.distanceTo(s),t.push(r),s=i;return this.cacheArcLengths=t,t}updateArcLengths(){this.needsUpdate=!0,this.getLengths()}getUtoTmapping(e,t=null){const i=this.getLengths();let s=0;const r=i.length;let a;t?a=t:a=e*i[r-1];let o=0,l=r-1,c;for(;o<=l;)if(s=Math.floor(o+(l-o)/2),c=i[s]-a,c<0)o=s+1;else if(c>0)l=s-1;else{l=s;break}if(s=l,i[s]===a)return s/(r-1);const u=i[s],f=i[s+1]-u,h=(a-u)/f;return(s+h)/(r-1)}getTangent(e,t){let s=e-1e-4,r=e+1e-4;s<0&&(s=0),r>1&&(r=1);const a=this.getPoint(s),o=this.getPoint(r),l=t||(a.isVector2?new Ve:new W);return l.copy(o).sub(a).normalize(),l}getTangentAt(e,t){const i=this.getUtoTmapping(e);return this.getTangent(i,t)}computeFrenetFrames(e,t=!1){const i=new W,s=[],r=[],a=[],o=new W,l=new Wt;for(let h=0;h<=e;h++){const g=h/e;s[h]=this.getTangentAt(g,new W)}r[0]=new W,a[0]=new W;let c=Number.MAX_VALUE;const u=Math.abs(s[0].x),d=Math.abs(s[0].y),f=Math.abs(s[0].z);u<=c&&(c=u,i.set(1,0,0)),d<=c&&(c=d,i.set(0,1,0)),f<=c&&i.set(0,0,1),o.crossVectors(s[0],i).normalize(),r[0].crossVectors(s[0],o),a[0].crossVectors(s[0],r[0]);for(let h=1;h<=e;h++){if(r[h]=r[h-1].clone(),a[h]=a[h-1].clone(),o.crossVectors(s[h-1],s[h]),o.length()>Number.EPSILON){o.normalize();const g=Math.acos(ht(s[h-1].dot(s[h]),-1,1));r[h].applyMatrix4(l.makeRotationAxis(o,g))}a[h].crossVectors(s[h],r[h])}if(t===!0){let h=Math.acos(ht(r[0].dot(r[e]),-1,1));h/=e,s[0].dot(o.crossVectors(r[0],r[e]))>0&&(h=-h);for(let g=1;g<=e;g++)r[g].applyMatrix4(l.makeRotationAxis(s[g],h*g)),a[g].crossVectors(s[g],r[g])}return{tangents:s,normals:r,binormals:a}}clone(){return new this.constructor().copy(this)}copy(e){return this.arcLengthDivisions=e.arcLengthDivisions,this.cacheArcLengths=null,this}toJSON(){const e={metadata:{version:4.7,type:"Curve",generator:"Curve.toJSON"}};return e.arcLengthDivisions=this.arcLengthDivisions,e.type=this.type,e}fromJSON(e){return this.arcLengthDivisions=e.arcLengthDivisions,this.cacheArcLengths=null,this}}class Nu extends Fi{constructor(e=0,t=0,i=1,s=1,r=0,a=Math.PI*2,o=!1,l=0){super(),this.isEllipseCurve=!0,this.type="EllipseCurve",this.aX=e,this.aY=t,this.xRadius=i,this.yRadius=s,this.aStartAngle=r,this.aEndAngle=a,this.aClockwise=o,this.aRotation=l}getPoint(e,t=new Ve){const i=t,s=Math.PI*2;let r=this.aEndAngle-this.aStartAngle;const a=Math.abs(r)<Number.EPSILON;for(;r<0;)r+=s;for(;r>s;)r-=s;r<Number.EPSILON&&(a?r=0:r=s),this.aClockwise===!0&&!a&&(r===s?r=-s:r=r-s);const o=this.aStartAngle+e*r;let l=this.aX+this.xRadius*Math.cos(o),c=this.aY+this.yRadius*Math.sin(o);if(this.aRotation!==0){const u=Math.cos(this.aRotation),d=Math.sin(this.aRotation),f=l-this.aX,h=c-this.aY;l=f*u-h*d+this.aX,c=f*d+h*u+this.aY}return i.set(l,c)}copy(e){return super.copy(e),this.aX=e.aX,this.aY=e.aY,this.xRadius=e.xRadius,this.yRadius=e.yRadius,this.aStartAngle=e.aStartAngle,this.aEndAngle=e.aEndAngle,this.aClockwise=e.aClockwise,this.aRotation=e.aRotation,this}toJSON(){const e=super.toJSON();return e.aX=this.aX,e.aY=this.aY,e.xRadius=this.xRadius,e.yRadius=this.yRadius,e.aStartAngle=this.aStartAngle,e.aEndAngle=this.aEndAngle,e.aClockwise=this.aClockwise,e.aRotation=this.aRotation,e}fromJSON(e){return super.fromJSON(e),this.aX=e.aX,this.aY=e.aY,this.xRadius=e.xRadius,this.yRadius=e.yRadius,this.aStartAngle=e.aStartAngle,this.aEndAngle=e.aEndAngle,this.aClockwise=e.aClockwise,this.aRotation=e.aRotation,this}}class b_ extends Nu{constructor(e,t,i,s,r,a){super(e,t,i,i,s,r,a),this.isArcCurve=!0,this.type="ArcCurve"}}function Iu(){let n=0,e=0,t=0,i=0;function s(r,a,o,l){n=r,e=o,t=-3*r+3*a-2*o-l,i=2*r-2*a+o+l}return{initCatmullRom:function(r,a,o,l,c){s(a,o,c*(o-r),c*(l-a))},initNonuniformCatmullRom:function(r,a,o,l,c,u,d){let f=(a-r)/c-(o-r)/(c+u)+(o-a)/u,h=(o-a)/u-(l-a)/(u+d)+(l-o)/d;f*=u,h*=u,s(a,o,f,h)},calc:function(r){const a=r*r,o=a*r;return n+e*r+t*a+i*o}}}const th=new W,nh=new W,Wl=new Iu,Xl=new Iu,ql=new Iu;class w_ extends Fi{constructor(e=[],t=!1,i="centripetal",s=.5){super(),this.isCatmullRomCurve3=!0,this.type="CatmullRomCurve3",this.points=e,this.closed=t,this.curveType=i,this.tension=s}getPoint(e,t=new W){const i=t,s=this.points,r=s.length,a=(r-(this.closed?0:1))*e;let o=Math.floor(a),l=a-o;this.closed?o+=o>0?0:(Math.floor(Math.abs(o)/r)+1)*r:l===0&&o===r-1&&(o=r-2,l=1);let c,u;this.closed||o>0?c=s[(o-1)%r]:(nh.subVectors(s[0],s[1]).add(s[0]),c=nh);const d=s[o%r],f=s[(o+1)%r];if(this.closed||o+2<r?u=s[(o+2)%r]:(th.subVectors(s[r-1],s[r-2]).add(s[r-1]),u=th),this.curveType==="centripetal"||this.curveType==="chordal"){const h=this.curveType==="chordal"?.5:.25;let g=Math.pow(c.distanceToSquared(d),h),M=Math.pow(d.distanceToSquared(f),h),p=Math.pow(f.distanceToSquared(u),h);M<1e-4&&(M=1),g<1e-4&&(g=M),p<1e-4&&(p=M),Wl.initNonuniformCatmullRom(c.x,d.x,f.x,u.x,g,M,p),Xl.initNonuniformCatmullRom(c.y,d.y,f.y,u.y,g,M,p),ql.initNonuniformCatmullRom(c.z,d.z,f.z,u.z,g,M,p)}else this.curveType==="catmullrom"&&(Wl.initCatmullRom(c.x,d.x,f.x,u.x,this.tension),Xl.initCatmullRom(c.y,d.y,f.y,u.y,this.tension),ql.initCatmullRom(c.z,d.z,f.z,u.z,this.tension));return i.set(Wl.calc(l),Xl.calc(l),ql.calc(l)),i}copy(e){super.copy(e),this.points=[];for(let t=0,i=e.points.length;t<i;t++){const s=e.points[t];this.points.push(s.clone())}return this.closed=e.closed,this.curveType=e.curveType,this.tension=e.tension,this}toJSON(){const e=super.toJSON();e.points=[];for(let t=0,i=this.points.length;t<i;t++){const s=this.points[t];e.points.push(s.toArray())}return e.closed=this.closed,e.curveType=this.curveType,e.tension=this.tension,e}fromJSON(e){super.fromJSON(e),this.points=[];for(let t=0,i=e.points.length;t<i;t++){const s=e.points[t];this.points.push(new W().fromArray(s))}return this.closed=e.closed,this.curveType=e.curveType,this.tension=e.tension,this}}function ih(n,e,t,i,s){const r=(i-e)*.5,a=(s-t)*.5,o=n*n,l=n*o;return(2*t-2*i+r+a)*l+(-3*t+3*i-2*r-a)*o+r*n+t}function A_(n,e){const t=1-n;return t*t*e}function R_(n,e){return 2*(1-n)*n*e}function C_(n,e){return n*n*e}function aa(n,e,t,i){return A_(n,e)+R_(n,t)+C_(n,i)}function P_(n,e){const t=1-n;return t*t*t*e}function L_(n,e){const t=1-n;return 3*t*t*n*e}function D_(n,e){return 3*(1-n)*n*n*e}function N_(n,e){return n*n*n*e}function oa(n,e,t,i,s){return P_(n,e)+L_(n,t)+D_(n,i)+N_(n,s)}class yp extends Fi{constructor(e=new Ve,t=new Ve,i=new Ve,s=new Ve){super(),this.isCubicBezierCurve=!0,this.type="CubicBezierCurve",this.v0=e,this.v1=t,this.v2=i,this.v3=s}getPoint(e,t=new Ve){const i=t,s=this.v0,r=this.v1,a=this.v2,o=this.v3;return i.set(oa(e,s.x,r.x,a.x,o.x),oa(e,s.y,r.y,a.y,o.y)),i}copy(e){return super.copy(e),this.v0.copy(e.v0),this.v1.copy(e.v1),this.v2.copy(e.v2),this.v3.copy(e.v3),this}toJSON(){const e=super.toJSON();return e.v0=this.v0.toArray(),e.v1=this.v1.toArray(),e.v2=this.v2.toArray(),e.v3=this.v3.toArray(),e}fromJSON(e){return super.fromJSON(e),this.v0.fromArray(e.v0),this.v1.fromArray(e.v1),this.v2.fromArray(e.v2),this.v3.fromArray(e.v3),this}}class I_ extends Fi{constructor(e=new W,t=new W,i=new W,s=new W){super(),this.isCubicBezierCurve3=!0,this.type="CubicBezierCurve3",this.v0=e,this.v1=t,this.v2=i,this.v3=s}getPoint(e,t=new W){const i=t,s=this.v0,r=this.v1,a=this.v2,o=this.v3;return i.set(oa(e,s.x,r.x,a.x,o.x),oa(e,s.y,r.y,a.y,o.y),oa(e,s.z,r.z,a.z,o.z)),i}copy(e){return super.copy(e),this.v0.copy(e.v0),this.v1.copy(e.v1),this.v2.copy(e.v2),this.v3.copy(e.v3),this}toJSON(){const e=super.toJSON();return e.v0=this.v0.toArray(),e.v1=this.v1.toArray(),e.v2=this.v2.toArray(),e.v3=this.v3.toArray(),e}fromJSON(e){return super.fromJSON(e),this.v0.fromArray(e.v0),this.v1.fromArray(e.v1),this.v2.fromArray(e.v2),this.v3.fromArray(e.v3),this}}class Ep extends Fi{constructor(e=new Ve,t=new Ve){super(),this.isLineCurve=!0,this.type="LineCurve",this.v1=e,this.v2=t}getPoint(e,t=new Ve){const i=t;return e===1?i.copy(this.v2):(i.copy(this.v2).sub(this.v1),i.multiplyScalar(e).add(this.v1)),i}getPointAt(e,t){return this.getPoint(e,t)}getTangent(e,t=new Ve){return t.subVectors(this.v2,this.v1).normalize()}getTangentAt(e,t){return this.getTangent(e,t)}copy(e){return super.copy(e),this.v1.copy(e.v1),this.v2.copy(e.v2),this}toJSON(){const e=super.toJSON();return e.v1=this.v1.toArray(),e.v2=this.v2.toArray(),e}fromJSON(e){return super.fromJSON(e),this.v1.fromArray(e.v1),this.v2.fromArray(e.v2),this}}class U_ extends Fi{constructor(e=new W,t=new W){super(),this.isLineCurve3=!0,this.type="LineCurve3",this.v1=e,this.v2=t}getPoint(e,t=new W){const i=t;return e===1?i.copy(this.v2):(i.copy(this.v2).sub(this.v1),i.multiplyScalar(e).add(this.v1)),i}getPointAt(e,t){return this.getPoint(e,t)}getTangent(e,t=new W){return t.subVectors(this.v2,this.v1).normalize()}getTangentAt(e,t){return this.getTangent(e,t)}copy(e){return super.copy(e),this.v1.copy(e.v1),this.v2.copy(e.v2),this}toJSON(){const e=super.toJSON();return e.v1=this.v1.toArray(),e.v2=this.v2.toArray(),e}fromJSON(e){return super.fromJSON(e),this.v1.fromArray(e.v1),this.v2.fromArray(e.v2),this}}class Tp extends Fi{constructor(e=new Ve,t=new Ve,i=new Ve){super(),this.isQuadraticBezierCurve=!0,this.type="QuadraticBezierCurve",this.v0=e,this.v1=t,this.v2=i}getPoint(e,t=new Ve){const i=t,s=this.v0,r=this.v1,a=this.v2;return i.set(aa(e,s.x,r.x,a.x),aa(e,s.y,r.y,a.y)),i}copy(e){return super.copy(e),this.v0.copy(e.v0),this.v1.copy(e.v1),this.v2.copy(e.v2),this}toJSON(){const e=super.toJSON();return e.v0=this.v0.toArray(),e.v1=this.v1.toArray(),e.v2=this.v2.toArray(),e}fromJSON(e){return super.fromJSON(e),this.v0.fromArray(e.v0),this.v1.fromArray(e.v1),this.v2.fromArray(e.v2),this}}class F_ extends Fi{constructor(e=new W,t=new W,i=new W){super(),this.isQuadraticBezierCurve3=!0,this.type="QuadraticBezierCurve3",this.v0=e,this.v1=t,this.v2=i}getPoint(e,t=new W){const i=t,s=this.v0,r=this.v1,a=this.v2;return i.set(aa(e,s.x,r.x,a.x),aa(e,s.y,r.y,a.y),aa(e,s.z,r.z,a.z)),i}copy(e){return super.copy(e),this.v0.copy(e.v0),this.v1.copy(e.v1),this.v2.copy(e.v2),this}toJSON(){const e=super.toJSON();return e.v0=this.v0.toArray(),e.v1=this.v1.toArray(),e.v2=this.v2.toArray(),e}fromJSON(e){return super.fromJSON(e),this.v0.fromArray(e.v0),this.v1.fromArray(e.v1),this.v2.fromArray(e.v2),this}}class bp extends Fi{constructor(e=[]){super(),this.isSplineCurve=!0,this.type="SplineCurve",this.points=e}getPoint(e,t=new Ve){const i=t,s=this.points,r=(s.length-1)*e,a=Math.floor(r),o=r-a,l=s[a===0?a:a-1],c=s[a],u=s[a>s.length-2?s.length-1:a+1],d=s[a>s.length-3?s.length-1:a+2];return i.set(ih(o,l.x,c.x,u.x,d.x),ih(o,l.y,c.y,u.y,d.y)),i}copy(e){super.copy(e),this.points=[];for(let t=0,i=e.points.length;t<i;t++){const s=e.points[t];this.points.push(s.clone())}return this}toJSON(){const e=super.toJSON();e.points=[];for(let t=0,i=this.points.length;t<i;t++){const s=this.points[t];e.points.push(s.toArray())}return e}fromJSON(e){super.fromJSON(e),this.points=[];for(let t=0,i=e.points.length;t<i;t++){const s=e.points[t];this.points.push(new Ve().fromArray(s))}return this}}var sh=Object.freeze({__proto__:null,ArcCurve:b_,CatmullRomCurve3:w_,CubicBezierCurve:yp,CubicBezierCurve3:I_,EllipseCurve:Nu,LineCurve:Ep,LineCurve3:U_,QuadraticBezierCurve:Tp,QuadraticBezierCurve3:F_,SplineCurve:bp});class O_ extends Fi{constructor(){super(),this.type="CurvePath",this.curves=[],this.autoClose=!1,this.cacheLengths=null}add(e){this.curves.push(e)}closePath(){const e=this.curves[0].getPoint(0),t=this.curves[this.curves.length-1].getPoint(1);if(!e.equals(t)){const i=e.isVector2===!0?"LineCurve":"LineCurve3";this.curves.push(new sh[i](t,e))}return this}getPoint(e,t){const i=e*this.getLength(),s=this.getCurveLengths();let r=0;for(;r<s.length;){if(s[r]>=i){const a=s[r]-i,o=this.curves[r],l=o.getLength(),c=l===0?0:1-a/l;return o.getPointAt(c,t)}r++}return null}getLength(){const e=this.getCurveLengths();return e[e.length-1]}updateArcLengths(){this.needsUpdate=!0,this.cacheLengths=null,this.getCurveLengths()}getCurveLengths(){if(this.cacheLengths&&this.cacheLengths.length===this.curves.length)return this.cacheLengths;const e=[];let t=0;for(let i=0,s=this.curves.length;i<s;i++)t+=this.curves[i].getLength(),e.push(t);return this.cacheLengths=e,e}getSpacedPoints(e=40){const t=[];for(let i=0;i<=e;i++)t.push(this.getPoint(i/e));return this.autoClose&&t.push(t[0]),t}getPoints(e=12){const t=[];let i;for(let s=0,r=this.curves;s<r.length;s++){const a=r[s],o=a.isEllipseCurve?e*2:a.isLineCurve||a.isLineCurve3?1:a.isSplineCurve?e*a.points.length:e,l=a.getPoints(o);for(let c=0;c<l.length;c++){const u=l[c];i&&i.equals(u)||(t.push(u),i=u)}}return this.autoClose&&t.length>1&&!t[t.length-1].equals(t[0])&&t.push(t[0]),t}copy(e){super.copy(e),this.curves=[];for(let t=0,i=e.curves.length;t<i;t++){const s=e.curves[t];this.curves.push(s.clone())}return this.autoClose=e.autoClose,this.cacheLengths=null,this}toJSON(){const e=super.toJSON();e.autoClose=this.autoClose,e.curves=[];for(let t=0,i=this.curves.length;t<i;t++){const s=this.curves[t];e.curves.push(s.toJSON())}return e}fromJSON(e){super.fromJSON(e),this.autoClose=e.autoClose,this.curves=[];for(let t=0,i=e.curves.length;t<i;t++){const s=e.curves[t];this.curves.push(new sh[s.type]().fromJSON(s))}return this.cacheLengths=null,this}}class rh extends O_{constructor(e){super(),this.type="Path",this.currentPoint=new Ve,e&&this.setFromPoints(e)}setFromPoints(e){this.moveTo(e[0].x,e[0].y);for(let t=1,i=e.length;t<i;t++)this.lineTo(e[t].x,e[t].y);return this}moveTo(e,t){return this.currentPoint.set(e,t),this}lineTo(e,t){const i=new Ep(this.currentPoint.clone(),new Ve(e,t));return this.curves.push(i),this.currentPoint.set(e,t),this}quadraticCurveTo(e,t,i,s){const r=new Tp(this.currentPoint.clone(),new Ve(e,t),new Ve(i,s));return this.curves.push(r),this.currentPoint.set(i,s),this}bezierCurveTo(e,t,i,s,r,a){const o=new yp(this.currentPoint.clone(),new Ve(e,t),new Ve(i,s),new Ve(r,a));return this.curves.push(o),this.currentPoint.set(r,a),this}splineThru(e){const t=[this.currentPoint.clone()].concat(e),i=new bp(t);return this.curves.push(i),this.currentPoint.copy(e[e.length-1]),this}arc(e,t,i,s,r,a){const o=this.currentPoint.x,l=this.currentPoint.y;return this.absarc(e+o,t+l,i,s,r,a),this}absarc(e,t,i,s,r,a){return this.absellipse(e,t,i,i,s,r,a),this}ellipse(e,t,i,s,r,a,o,l){const c=this.currentPoint.x,u=this.currentPoint.y;return this.absellipse(e+c,t+u,i,s,r,a,o,l),this}absellipse(e,t,i,s,r,a,o,l){const c=new Nu(e,t,i,s,r,a,o,l);if(this.curves.length>0){const d=c.getPoint(0);d.equals(this.currentPoint)||this.lineTo(d.x,d.y)}this.curves.push(c);const u=c.getPoint(1);return this.currentPoint.copy(u),this}copy(e){return super.copy(e),this.currentPoint.copy(e.currentPoint),this}toJSON(){const e=super.toJSON();return e.currentPoint=this.currentPoint.toArray(),e}fromJSON(e){return super.fromJSON(e),this.currentPoint.fromArray(e.currentPoint),this}}class wp extends rh{constructor(e){super(e),this.uuid=Lr(),this.type="Shape",this.holes=[]}getPointsHoles(e){const t=[];for(let i=0,s=this.holes.length;i<s;i++)t[i]=this.holes[i].getPoints(e);return t}extractPoints(e){return{shape:this.getPoints(e),holes:this.getPointsHoles(e)}}copy(e){super.copy(e),this.holes=[];for(let t=0,i=e.holes.length;t<i;t++){const s=e.holes[t];this.holes.push(s.clone())}return this}toJSON(){const e=super.toJSON();e.uuid=this.uuid,e.holes=[];for(let t=0,i=this.holes.length;t<i;t++){const s=this.holes[t];e.holes.push(s.toJSON())}return e}fromJSON(e){super.fromJSON(e),this.uuid=e.uuid,this.holes=[];for(let t=0,i=e.holes.length;t<i;t++){const s=e.holes[t];this.holes.push(new rh().fromJSON(s))}return this}}function B_(n,e,t=2){const i=e&&e.length,s=i?e[0]*t:n.length;let r=Ap(n,0,s,t,!0);const a=[];if(!r||r.next===r.prev)return a;let o,l,c;if(i&&(r=V_(n,e,r,t)),n.length>80*t){o=n[0],l=n[1];let u=o,d=l;for(let f=t;f<s;f+=t){const h=n[f],g=n[f+1];h<o&&(o=h),g<l&&(l=g),h>u&&(u=h),g>d&&(d=g)}c=Math.max(u-o,d-l),c=c!==0?32767/c:0}return ma(r,a,t,o,l,c,0),a}function Ap(n,e,t,i,s){let r;if(s===e0(n,e,t,i)>0)for(let a=e;a<t;a+=i)r=ah(a/i|0,n[a],n[a+1],r);else for(let a=t-i;a>=e;a-=i)r=ah(a/i|0,n[a],n[a+1],r);return r&&Tr(r,r.next)&&(_a(r),r=r.next),r}function Bs(n,e){if(!n)return n;e||(e=n);let t=n,i;do if(i=!1,!t.steiner&&(Tr(t,t.next)||Vt(t.prev,t,t.next)===0)){if(_a(t),t=e=t.prev,t===t.next)break;i=!0}else t=t.next;while(i||t!==e);return e}function ma(n,e,t,i,s,r,a){if(!n)return;!a&&r&&$_(n,i,s,r);let o=n;for(;n.prev!==n.next;){const l=n.prev,c=n.next;if(r?k_(n,i,s,r):z_(n)){e.push(l.i,n.i,c.i),_a(n),n=c.next,o=c.next;continue}if(n=c,n===o){a?a===1?(n=G_(Bs(n),e),ma(n,e,t,i,s,r,2)):a===2&&H_(n,e,t,i,s,r):ma(Bs(n),e,t,i,s,r,1);break}}}function z_(n){const e=n.prev,t=n,i=n.next;if(Vt(e,t,i)>=0)return!1;const s=e.x,r=t.x,a=i.x,o=e.y,l=t.y,c=i.y,u=Math.min(s,r,a),d=Math.min(o,l,c),f=Math.max(s,r,a),h=Math.max(o,l,c);let g=i.next;for(;g!==e;){if(g.x>=u&&g.x<=f&&g.y>=d&&g.y<=h&&ea(s,o,r,l,a,c,g.x,g.y)&&Vt(g.prev,g,g.next)>=0)return!1;g=g.next}return!0}function k_(n,e,t,i){const s=n.prev,r=n,a=n.next;if(Vt(s,r,a)>=0)return!1;const o=s.x,l=r.x,c=a.x,u=s.y,d=r.y,f=a.y,h=Math.min(o,l,c),g=Math.min(u,d,f),M=Math.max(o,l,c),p=Math.max(u,d,f),m=eu(h,g,e,t,i),x=eu(M,p,e,t,i);let A=n.prevZ,S=n.nextZ;for(;A&&A.z>=m&&S&&S.z<=x;){if(A.x>=h&&A.x<=M&&A.y>=g&&A.y<=p&&A!==s&&A!==a&&ea(o,u,l,d,c,f,A.x,A.y)&&Vt(A.prev,A,A.next)>=0||(A=A.prevZ,S.x>=h&&S.x<=M&&S.y>=g&&S.y<=p&&S!==s&&S!==a&&ea(o,u,l,d,c,f,S.x,S.y)&&Vt(S.prev,S,S.next)>=0))return!1;S=S.nextZ}for(;A&&A.z>=m;){if(A.x>=h&&A.x<=M&&A.y>=g&&A.y<=p&&A!==s&&A!==a&&ea(o,u,l,d,c,f,A.x,A.y)&&Vt(A.prev,A,A.next)>=0)return!1;A=A.prevZ}for(;S&&S.z<=x;){if(S.x>=h&&S.x<=M&&S.y>=g&&S.y<=p&&S!==s&&S!==a&&ea(o,u,l,d,c,f,S.x,S.y)&&Vt(S.prev,S,S.next)>=0)return!1;S=S.nextZ}return!0}function G_(n,e){let t=n;do{const i=t.prev,s=t.next.next;!Tr(i,s)&&Cp(i,t,t.next,s)&&ga(i,s)&&ga(s,i)&&(e.push(i.i,t.i,s.i),_a(t),_a(t.next),t=n=s),t=t.next}while(t!==n);return Bs(t)}function H_(n,e,t,i,s,r){let a=n;do{let o=a.next.next;for(;o!==a.prev;){if(a.i!==o.i&&J_(a,o)){let l=Pp(a,o);a=Bs(a,a.next),l=Bs(l,l.next),ma(a,e,t,i,s,r,0),ma(l,e,t,i,s,r,0);return}o=o.next}a=a.next}while(a!==n)}function V_(n,e,t,i){const s=[];for(let r=0,a=e.length;r<a;r++){const o=e[r]*i,l=r<a-1?e[r+1]*i:n.length,c=Ap(n,o,l,i,!1);c===c.next&&(c.steiner=!0),s.push(Z_(c))}s.sort(W_);for(let r=0;r<s.length;r++)t=X_(s[r],t);return t}function W_(n,e){let t=n.x-e.x;if(t===0&&(t=n.y-e.y,t===0)){const i=(n.next.y-n.y)/(n.next.x-n.x),s=(e.next.y-e.y)/(e.next.x-e.x);t=i-s}return t}function X_(n,e){const t=q_(n,e);if(!t)return e;const i=Pp(t,n);return Bs(i,i.next),Bs(t,t.next)}function q_(n,e){let t=e;const i=n.x,s=n.y;let r=-1/0,a;if(Tr(n,t))return t;do{if(Tr(n,t.next))return t.next;if(s<=t.y&&s>=t.next.y&&t.next.y!==t.y){const d=t.x+(s-t.y)*(t.next.x-t.x)/(t.next.y-t.y);if(d<=i&&d>r&&(r=d,a=t.x<t.next.x?t:t.next,d===i))return a}t=t.next}while(t!==e);if(!a)return null;const o=a,l=a.x,c=a.y;let u=1/0;t=a;do{if(i>=t.x&&t.x>=l&&i!==t.x&&Rp(s<c?i:r,s,l,c,s<c?r:i,s,t.x,t.y)){const d=Math.abs(s-t.y)/(i-t.x);ga(t,n)&&(d<u||d===u&&(t.x>a.x||t.x===a.x&&Y_(a,t)))&&(a=t,u=d)}t=t.next}while(t!==o);return a}function Y_(n,e){return Vt(n.prev,n,e.prev)<0&&Vt(e.next,n,n.next)<0}function $_(n,e,t,i){let s=n;do s.z===0&&(s.z=eu(s.x,s.y,e,t,i)),s.prevZ=s.prev,s.nextZ=s.next,s=s.next;while(s!==n);s.prevZ.nextZ=null,s.prevZ=null,K_(s)}function K_(n){let e,t=1;do{let i=n,s;n=null;let r=null;for(e=0;i;){e++;let a=i,o=0;for(let c=0;c<t&&(o++,a=a.nextZ,!!a);c++);let l=t;for(;o>0||l>0&&a;)o!==0&&(l===0||!a||i.z<=a.z)?(s=i,i=i.nextZ,o--):(s=a,a=a.nextZ,l--),r?r.nextZ=s:n=s,s.prevZ=r,r=s;i=a}r.nextZ=null,t*=2}while(e>1);return n}function eu(n,e,t,i,s){return n=(n-t)*s|0,e=(e-i)*s|0,n=(n|n<<8)&16711935,n=(n|n<<4)&252645135,n=(n|n<<2)&858993459,n=(n|n<<1)&1431655765,e=(e|e<<8)&16711935,e=(e|e<<4)&252645135,e=(e|e<<2)&858993459,e=(e|e<<1)&1431655765,n|e<<1}function Z_(n){let e=n,t=n;do(e.x<t.x||e.x===t.x&&e.y<t.y)&&(t=e),e=e.next;while(e!==n);return t}function Rp(n,e,t,i,s,r,a,o){return(s-a)*(e-o)>=(n-a)*(r-o)&&(n-a)*(i-o)>=(t-a)*(e-o)&&(t-a)*(r-o)>=(s-a)*(i-o)}function ea(n,e,t,i,s,r,a,o){return!(n===a&&e===o)&&Rp(n,e,t,i,s,r,a,o)}function J_(n,e){return n.next.i!==e.i&&n.prev.i!==e.i&&!Q_(n,e)&&(ga(n,e)&&ga(e,n)&&j_(n,e)&&(Vt(n.prev,n,e.prev)||Vt(n,e.prev,e))||Tr(n,e)&&Vt(n.prev,n,n.next)>0&&Vt(e.prev,e,e.next)>0)}function Vt(n,e,t){return(e.y-n.y)*(t.x-e.x)-(e.x-n.x)*(t.y-e.y)}function Tr(n,e){return n.x===e.x&&n.y===e.y}function Cp(n,e,t,i){const s=eo(Vt(n,e,t)),r=eo(Vt(n,e,i)),a=eo(Vt(t,i,n)),o=eo(Vt(t,i,e));return!!(s!==r&&a!==o||s===0&&ja(n,t,e)||r===0&&ja(n,i,e)||a===0&&ja(t,n,i)||o===0&&ja(t,e,i))}function ja(n,e,t){return e.x<=Math.max(n.x,t.x)&&e.x>=Math.min(n.x,t.x)&&e.y<=Math.max(n.y,t.y)&&e.y>=Math.min(n.y,t.y)}function eo(n){return n>0?1:n<0?-1:0}function Q_(n,e){let t=n;do{if(t.i!==n.i&&t.next.i!==n.i&&t.i!==e.i&&t.next.i!==e.i&&Cp(t,t.next,n,e))return!0;t=t.next}while(t!==n);return!1}function ga(n,e){return Vt(n.prev,n,n.next)<0?Vt(n,e,n.next)>=0&&Vt(n,n.prev,e)>=0:Vt(n,e,n.prev)<0||Vt(n,n.next,e)<0}function j_(n,e){let t=n,i=!1;const s=(n.x+e.x)/2,r=(n.y+e.y)/2;do t.y>r!=t.next.y>r&&t.next.y!==t.y&&s<(t.next.x-t.x)*(r-t.y)/(t.next.y-t.y)+t.x&&(i=!i),t=t.next;while(t!==n);return i}function Pp(n,e){const t=tu(n.i,n.x,n.y),i=tu(e.i,e.x,e.y),s=n.next,r=e.prev;return n.next=e,e.prev=n,t.next=s,s.prev=t,i.next=t,t.prev=i,r.next=i,i.prev=r,i}function ah(n,e,t,i){const s=tu(n,e,t);return i?(s.next=i.next,s.prev=i,i.next.prev=s,i.next=s):(s.prev=s,s.next=s),s}function _a(n){n.next.prev=n.prev,n.prev.next=n.next,n.prevZ&&(n.prevZ.nextZ=n.nextZ),n.nextZ&&(n.nextZ.prevZ=n.prevZ)}function tu(n,e,t){return{i:n,x:e,y:t,prev:null,next:null,z:0,prevZ:null,nextZ:null,steiner:!1}}function e0(n,e,t,i){let s=0;for(let r=e,a=t-i;r<t;r+=i)s+=(n[a]-n[r])*(n[r+1]+n[a+1]),a=r;return s}class t0{static triangulate(e,t,i=2){return B_(e,t,i)}}class la{static area(e){const t=e.length;let i=0;for(let s=t-1,r=0;r<t;s=r++)i+=e[s].x*e[r].y-e[r].x*e[s].y;return i*.5}static isClockWise(e){return la.area(e)<0}static triangulateShape(e,t){const i=[],s=[],r=[];oh(e),lh(i,e);let a=e.length;t.forEach(oh);for(let l=0;l<t.length;l++)s.push(a),a+=t[l].length,lh(i,t[l]);const o=t0.triangulate(i,s);for(let l=0;l<o.length;l+=3)r.push(o.slice(l,l+3));return r}}function oh(n){const e=n.length;e>2&&n[e-1].equals(n[0])&&n.pop()}function lh(n,e){for(let t=0;t<e.length;t++)n.push(e[t].x),n.push(e[t].y)}class Yo extends si{constructor(e=1,t=1,i=1,s=1){super(),this.type="PlaneGeometry",this.parameters={width:e,height:t,widthSegments:i,heightSegments:s};const r=e/2,a=t/2,o=Math.floor(i),l=Math.floor(s),c=o+1,u=l+1,d=e/o,f=t/l,h=[],g=[],M=[],p=[];for(let m=0;m<u;m++){const x=m*f-a;for(let A=0;A<c;A++){const S=A*d-r;g.push(S,-x,0),M.push(0,0,1),p.push(A/o),p.push(1-m/l)}}for(let m=0;m<l;m++)for(let x=0;x<o;x++){const A=x+c*m,S=x+c*(m+1),R=x+1+c*(m+1),w=x+1+c*m;h.push(A,S,w),h.push(S,R,w)}this.setIndex(h),this.setAttribute("position",new Yn(g,3)),this.setAttribute("normal",new Yn(M,3)),this.setAttribute("uv",new Yn(p,2))}copy(e){return super.copy(e),this.parameters=Object.assign({},e.parameters),this}static fromJSON(e){return new Yo(e.width,e.height,e.widthSegments,e.heightSegments)}}class Uu extends si{constructor(e=new wp([new Ve(0,.5),new Ve(-.5,-.5),new Ve(.5,-.5)]),t=12){super(),this.type="ShapeGeometry",this.parameters={shapes:e,curveSegments:t};const i=[],s=[],r=[],a=[];let o=0,l=0;if(Array.isArray(e)===!1)c(e);else for(let u=0;u<e.length;u++)c(e[u]),this.addGroup(o,l,u),o+=l,l=0;this.setIndex(i),this.setAttribute("position",new Yn(s,3)),this.setAttribute("normal",new Yn(r,3)),this.setAttribute("uv",new Yn(a,2));function c(u){const d=s.length/3,f=u.extractPoints(t);let h=f.shape;const g=f.holes;la.isClockWise(h)===!1&&(h=h.reverse());for(let p=0,m=g.length;p<m;p++){const x=g[p];la.isClockWise(x)===!0&&(g[p]=x.reverse())}const M=la.triangulateShape(h,g);for(let p=0,m=g.length;p<m;p++){const x=g[p];h=h.concat(x)}for(let p=0,m=h.length;p<m;p++){const x=h[p];s.push(x.x,x.y,0),r.push(0,0,1),a.push(x.x,x.y)}for(let p=0,m=M.length;p<m;p++){const x=M[p],A=x[0]+d,S=x[1]+d,R=x[2]+d;i.push(A,S,R),l+=3}}}copy(e){return super.copy(e),this.parameters=Object.assign({},e.parameters),this}toJSON(){const e=super.toJSON(),t=this.parameters.shapes;return n0(t,e)}static fromJSON(e,t){const i=[];for(let s=0,r=e.shapes.length;s<r;s++){const a=t[e.shapes[s]];i.push(a)}return new Uu(i,e.curveSegments)}}function n0(n,e){if(e.shapes=[],Array.isArray(n))for(let t=0,i=n.length;t<i;t++){const s=n[t];e.shapes.push(s.uuid)}else e.shapes.push(n.uuid);return e}function br(n){const e={};for(const t in n){e[t]={};for(const i in n[t]){const s=n[t][i];if(ch(s))s.isRenderTargetTexture?(Je("UniformsUtils: Textures of render targets cannot be cloned via cloneUniforms() or mergeUniforms()."),e[t][i]=null):e[t][i]=s.clone();else if(Array.isArray(s))if(ch(s[0])){const r=[];for(let a=0,o=s.length;a<o;a++)r[a]=s[a].clone();e[t][i]=r}else e[t][i]=s.slice();else e[t][i]=s}}return e}function In(n){const e={};for(let t=0;t<n.length;t++){const i=br(n[t]);for(const s in i)e[s]=i[s]}return e}function ch(n){return n&&(n.isColor||n.isMatrix3||n.isMatrix4||n.isVector2||n.isVector3||n.isVector4||n.isTexture||n.isQuaternion)}function i0(n){const e=[];for(let t=0;t<n.length;t++)e.push(n[t].clone());return e}function Lp(n){const e=n.getRenderTarget();return e===null?n.outputColorSpace:e.isXRRenderTarget===!0?e.texture.colorSpace:mt.workingColorSpace}const s0={clone:br,merge:In};var r0=`void main() {
	gl_Position = projectionMatrix * modelViewMatrix * vec4( position, 1.0 );
}`,a0=`void main() {
	gl_FragColor = vec4( 1.0, 0.0, 0.0, 1.0 );
}`;class zs extends ya{constructor(e){super(),this.isShaderMaterial=!0,this.type="ShaderMaterial",this.defines={},this.uniforms={},this.uniformsGroups=[],this.vertexShader=r0,this.fragmentShader=a0,this.linewidth=1,this.wireframe=!1,this.wireframeLinewidth=1,this.fog=!1,this.lights=!1,this.clipping=!1,this.forceSinglePass=!0,this.extensions={clipCullDistance:!1,multiDraw:!1},this.defaultAttributeValues={color:[1,1,1],uv:[0,0],uv1:[0,0]},this.index0AttributeName=void 0,this.uniformsNeedUpdate=!1,this.glslVersion=null,e!==void 0&&this.setValues(e)}copy(e){return super.copy(e),this.fragmentShader=e.fragmentShader,this.vertexShader=e.vertexShader,this.uniforms=br(e.uniforms),this.uniformsGroups=i0(e.uniformsGroups),this.defines=Object.assign({},e.defines),this.wireframe=e.wireframe,this.wireframeLinewidth=e.wireframeLinewidth,this.fog=e.fog,this.lights=e.lights,this.clipping=e.clipping,this.extensions=Object.assign({},e.extensions),this.glslVersion=e.glslVersion,this.defaultAttributeValues=Object.assign({},e.defaultAttributeValues),this.index0AttributeName=e.index0AttributeName,this.uniformsNeedUpdate=e.uniformsNeedUpdate,this}toJSON(e){const t=super.toJSON(e);t.glslVersion=this.glslVersion,t.uniforms={};for(const s in this.uniforms){const a=this.uniforms[s].value;a&&a.isTexture?t.uniforms[s]={type:"t",value:a.toJSON(e).uuid}:a&&a.isColor?t.uniforms[s]={type:"c",value:a.getHex()}:a&&a.isVector2?t.uniforms[s]={type:"v2",value:a.toArray()}:a&&a.isVector3?t.uniforms[s]={type:"v3",value:a.toArray()}:a&&a.isVector4?t.uniforms[s]={type:"v4",value:a.toArray()}:a&&a.isMatrix3?t.uniforms[s]={type:"m3",value:a.toArray()}:a&&a.isMatrix4?t.uniforms[s]={type:"m4",value:a.toArray()}:t.uniforms[s]={value:a}}Object.keys(this.defines).length>0&&(t.defines=this.defines),t.vertexShader=this.vertexShader,t.fragmentShader=this.fragmentShader,t.lights=this.lights,t.clipping=this.clipping;const i={};for(const s in this.extensions)this.extensions[s]===!0&&(i[s]=!0);return Object.keys(i).length>0&&(t.extensions=i),t}fromJSON(e,t){if(super.fromJSON(e,t),e.uniforms!==void 0)for(const i in e.uniforms){const s=e.uniforms[i];switch(this.uniforms[i]={},s.type){case"t":this.uniforms[i].value=t[s.value]||null;break;case"c":this.uniforms[i].value=new yt().setHex(s.value);break;case"v2":this.uniforms[i].value=new Ve().fromArray(s.value);break;case"v3":this.uniforms[i].value=new W().fromArray(s.value);break;case"v4":this.uniforms[i].value=new ln().fromArray(s.value);break;case"m3":this.uniforms[i].value=new it().fromArray(s.value);break;case"m4":this.uniforms[i].value=new Wt().fromArray(s.value);break;default:this.uniforms[i].value=s.value}}if(e.defines!==void 0&&(this.defines=e.defines),e.vertexShader!==void 0&&(this.vertexShader=e.vertexShader),e.fragmentShader!==void 0&&(this.fragmentShader=e.fragmentShader),e.glslVersion!==void 0&&(this.glslVersion=e.glslVersion),e.extensions!==void 0)for(const i in e.extensions)this.extensions[i]=e.extensions[i];return e.lights!==void 0&&(this.lights=e.lights),e.clipping!==void 0&&(this.clipping=e.clipping),this}}class nu extends zs{constructor(e){super(e),this.isRawShaderMaterial=!0,this.type="RawShaderMaterial"}}class o0 extends ya{constructor(e){super(),this.isMeshDepthMaterial=!0,this.type="MeshDepthMaterial",this.depthPacking=Bg,this.map=null,this.alphaMap=null,this.displacementMap=null,this.displacementScale=1,this.displacementBias=0,this.wireframe=!1,this.wireframeLinewidth=1,this.setValues(e)}copy(e){return super.copy(e),this.depthPacking=e.depthPacking,this.map=e.map,this.alphaMap=e.alphaMap,this.displacementMap=e.displacementMap,this.displacementScale=e.displacementScale,this.displacementBias=e.displacementBias,this.wireframe=e.wireframe,this.wireframeLinewidth=e.wireframeLinewidth,this}}class l0 extends ya{constructor(e){super(),this.isMeshDistanceMaterial=!0,this.type="MeshDistanceMaterial",this.map=null,this.alphaMap=null,this.displacementMap=null,this.displacementScale=1,this.displacementBias=0,this.setValues(e)}copy(e){return super.copy(e),this.map=e.map,this.alphaMap=e.alphaMap,this.displacementMap=e.displacementMap,this.displacementScale=e.displacementScale,this.displacementBias=e.displacementBias,this}}const to=new W,no=new Dr,bi=new W;class Dp extends zn{constructor(){super(),this.isCamera=!0,this.type="Camera",this.matrixWorldInverse=new Wt,this.projectionMatrix=new Wt,this.projectionMatrixInverse=new Wt,this.coordinateSystem=gi,this._reversedDepth=!1}get reversedDepth(){return this._reversedDepth}copy(e,t){return super.copy(e,t),this.matrixWorldInverse.copy(e.matrixWorldInverse),this.projectionMatrix.copy(e.projectionMatrix),this.projectionMatrixInverse.copy(e.projectionMatrixInverse),this.coordinateSystem=e.coordinateSystem,this}getWorldDirection(e){return super.getWorldDirection(e).negate()}updateMatrixWorld(e){super.updateMatrixWorld(e),this.matrixWorld.decompose(to,no,bi),bi.x===1&&bi.y===1&&bi.z===1?this.matrixWorldInverse.copy(this.matrixWorld).invert():this.matrixWorldInverse.compose(to,no,bi.set(1,1,1)).invert()}updateWorldMatrix(e,t,i=!1){super.updateWorldMatrix(e,t,i),this.matrixWorld.decompose(to,no,bi),bi.x===1&&bi.y===1&&bi.z===1?this.matrixWorldInverse.copy(this.matrixWorld).invert():this.matrixWorldInverse.compose(to,no,bi.set(1,1,1)).invert()}clone(){return new this.constructor().copy(this)}}const us=new W,uh=new Ve,fh=new Ve;class di extends Dp{constructor(e=50,t=1,i=.1,s=2e3){super(),this.isPerspectiveCamera=!0,this.type="PerspectiveCamera",this.fov=e,this.zoom=1,this.near=i,this.far=s,this.focus=10,this.aspect=t,this.view=null,this.filmGauge=35,this.filmOffset=0,this.updateProjectionMatrix()}copy(e,t){return super.copy(e,t),this.fov=e.fov,this.zoom=e.zoom,this.near=e.near,this.far=e.far,this.focus=e.focus,this.aspect=e.aspect,this.view=e.view===null?null:Object.assign({},e.view),this.filmGauge=e.filmGauge,this.filmOffset=e.filmOffset,this}setFocalLength(e){const t=.5*this.getFilmHeight()/e;this.fov=jc*2*Math.atan(t),this.updateProjectionMatrix()}getFocalLength(){const e=Math.tan(Sl*.5*this.fov);return .5*this.getFilmHeight()/e}getEffectiveFOV(){return jc*2*Math.atan(Math.tan(Sl*.5*this.fov)/this.zoom)}getFilmWidth(){return this.filmGauge*Math.min(this.aspect,1)}getFilmHeight(){return this.filmGauge/Math.max(this.aspect,1)}getViewBounds(e,t,i){us.set(-1,-1,.5).applyMatrix4(this.projectionMatrixInverse),t.set(us.x,us.y).multiplyScalar(-e/us.z),us.set(1,1,.5).applyMatrix4(this.projectionMatrixInverse),i.set(us.x,us.y).multiplyScalar(-e/us.z)}getViewSize(e,t){return this.getViewBounds(e,uh,fh),t.subVectors(fh,uh)}setViewOffset(e,t,i,s,r,a){this.aspect=e/t,this.view===null&&(this.view={enabled:!0,fullWidth:1,fullHeight:1,offsetX:0,offsetY:0,width:1,height:1}),this.view.enabled=!0,this.view.fullWidth=e,this.view.fullHeight=t,this.view.offsetX=i,this.view.offsetY=s,this.view.width=r,this.view.height=a,this.updateProjectionMatrix()}clearViewOffset(){this.view!==null&&(this.view.enabled=!1),this.updateProjectionMatrix()}updateProjectionMatrix(){const e=this.near;let t=e*Math.tan(Sl*.5*this.fov)/this.zoom,i=2*t,s=this.aspect*i,r=-.5*s;const a=this.view;if(this.view!==null&&this.view.enabled){const l=a.fullWidth,c=a.fullHeight;r+=a.offsetX*s/l,t-=a.offsetY*i/c,s*=a.width/l,i*=a.height/c}const o=this.filmOffset;o!==0&&(r+=e*o/this.getFilmWidth()),this.projectionMatrix.makePerspective(r,r+s,t,t-i,e,this.far,this.coordinateSystem,this.reversedDepth),this.projectionMatrixInverse.copy(this.projectionMatrix).invert()}toJSON(e){const t=super.toJSON(e);return t.object.fov=this.fov,t.object.zoom=this.zoom,t.object.near=this.near,t.object.far=this.far,t.object.focus=this.focus,t.object.aspect=this.aspect,this.view!==null&&(t.object.view=Object.assign({},this.view)),t.object.filmGauge=this.filmGauge,t.object.filmOffset=this.filmOffset,t}}class c0 extends Dp{constructor(e=-1,t=1,i=1,s=-1,r=.1,a=2e3){super(),this.isOrthographicCamera=!0,this.type="OrthographicCamera",this.zoom=1,this.view=null,this.left=e,this.right=t,this.top=i,this.bottom=s,this.near=r,this.far=a,this.updateProjectionMatrix()}copy(e,t){return super.copy(e,t),this.left=e.left,this.right=e.right,this.top=e.top,this.bottom=e.bottom,this.near=e.near,this.far=e.far,this.zoom=e.zoom,this.view=e.view===null?null:Object.assign({},e.view),this}setViewOffset(e,t,i,s,r,a){this.view===null&&(this.view={enabled:!0,fullWidth:1,fullHeight:1,offsetX:0,offsetY:0,width:1,height:1}),this.view.enabled=!0,this.view.fullWidth=e,this.view.fullHeight=t,this.view.offsetX=i,this.view.offsetY=s,this.view.width=r,this.view.height=a,this.updateProjectionMatrix()}clearViewOffset(){this.view!==null&&(this.view.enabled=!1),this.updateProjectionMatrix()}updateProjectionMatrix(){const e=(this.right-this.left)/(2*this.zoom),t=(this.top-this.bottom)/(2*this.zoom),i=(this.right+this.left)/2,s=(this.top+this.bottom)/2;let r=i-e,a=i+e,o=s+t,l=s-t;if(this.view!==null&&this.view.enabled){const c=(this.right-this.left)/this.view.fullWidth/this.zoom,u=(this.top-this.bottom)/this.view.fullHeight/this.zoom;r+=c*this.view.offsetX,a=r+c*this.view.width,o-=u*this.view.offsetY,l=o-u*this.view.height}this.projectionMatrix.makeOrthographic(r,a,o,l,this.near,this.far,this.coordinateSystem,this.reversedDepth),this.projectionMatrixInverse.copy(this.projectionMatrix).invert()}toJSON(e){const t=super.toJSON(e);return t.object.zoom=this.zoom,t.object.left=this.left,t.object.right=this.right,t.object.top=this.top,t.object.bottom=this.bottom,t.object.near=this.near,t.object.far=this.far,this.view!==null&&(t.object.view=Object.assign({},this.view)),t}}class u0 extends si{constructor(){super(),this.isInstancedBufferGeometry=!0,this.type="InstancedBufferGeometry",this.instanceCount=1/0}copy(e){return super.copy(e),this.instanceCount=e.instanceCount,this}toJSON(){const e=super.toJSON();return e.instanceCount=this.instanceCount,e.isInstancedBufferGeometry=!0,e}}const ur=-90,fr=1;class iu extends zn{constructor(e,t,i){super(),this.type="CubeCamera",this.renderTarget=i,this.coordinateSystem=null,this.activeMipmapLevel=0;const s=new di(ur,fr,e,t);s.layers=this.layers,this.add(s);const r=new di(ur,fr,e,t);r.layers=this.layers,this.add(r);const a=new di(ur,fr,e,t);a.layers=this.layers,this.add(a);const o=new di(ur,fr,e,t);o.layers=this.layers,this.add(o);const l=new di(ur,fr,e,t);l.layers=this.layers,this.add(l);const c=new di(ur,fr,e,t);c.layers=this.layers,this.add(c)}updateCoordinateSystem(){const e=this.coordinateSystem,t=this.children.concat(),[i,s,r,a,o,l]=t;for(const c of t)this.remove(c);if(e===gi)i.up.set(0,1,0),i.lookAt(1,0,0),s.up.set(0,1,0),s.lookAt(-1,0,0),r.up.set(0,0,-1),r.lookAt(0,1,0),a.up.set(0,0,1),a.lookAt(0,-1,0),o.up.set(0,1,0),o.lookAt(0,0,1),l.up.set(0,1,0),l.lookAt(0,0,-1);else if(e===Io)i.up.set(0,-1,0),i.lookAt(-1,0,0),s.up.set(0,-1,0),s.lookAt(1,0,0),r.up.set(0,0,1),r.lookAt(0,1,0),a.up.set(0,0,-1),a.lookAt(0,-1,0),o.up.set(0,-1,0),o.lookAt(0,0,1),l.up.set(0,-1,0),l.lookAt(0,0,-1);else throw new Error("THREE.CubeCamera.updateCoordinateSystem(): Invalid coordinate system: "+e);for(const c of t)this.add(c),c.updateMatrixWorld()}update(e,t){this.parent===null&&this.updateMatrixWorld();const{renderTarget:i,activeMipmapLevel:s}=this;this.coordinateSystem!==e.coordinateSystem&&(this.coordinateSystem=e.coordinateSystem,this.updateCoordinateSystem());const[r,a,o,l,c,u]=this.children,d=e.getRenderTarget(),f=e.getActiveCubeFace(),h=e.getActiveMipmapLevel(),g=e.xr.enabled;e.xr.enabled=!1;const M=i.texture.mipmapsAutoUpdate;i.texture.mipmapsAutoUpdate=!1;let p=!1;e.isWebGLRenderer===!0?p=e.state.buffers.depth.getReversed():p=e.reversedDepthBuffer,e.setRenderTarget(i,0,s),p&&e.autoClear===!1&&e.clearDepth(),e.render(t,r),e.setRenderTarget(i,1,s),p&&e.autoClear===!1&&e.clearDepth(),e.render(t,a),e.setRenderTarget(i,2,s),p&&e.autoClear===!1&&e.clearDepth(),e.render(t,o),e.setRenderTarget(i,3,s),p&&e.autoClear===!1&&e.clearDepth(),e.render(t,l),e.setRenderTarget(i,4,s),p&&e.autoClear===!1&&e.clearDepth(),e.render(t,c),i.texture.mipmapsAutoUpdate=M,e.setRenderTarget(i,5,s),p&&e.autoClear===!1&&e.clearDepth(),e.render(t,u),e.setRenderTarget(d,f,h),e.xr.enabled=g,i.texture.needsPMREMUpdate=!0}}class f0 extends di{constructor(e=[]){super(),this.isArrayCamera=!0,this.isMultiViewCamera=!1,this.cameras=e,this.perCameraFrustumCulled=!1}}function hh(n,e,t,i){const s=h0(i);switch(t){case sp:return n*e;case ap:return n*e/s.components*s.byteLength;case Au:return n*e/s.components*s.byteLength;case Fs:return n*e*2/s.components*s.byteLength;case Ru:return n*e*2/s.components*s.byteLength;case rp:return n*e*3/s.components*s.byteLength;case Di:return n*e*4/s.components*s.byteLength;case Cu:return n*e*4/s.components*s.byteLength;case _o:case vo:return Math.floor((n+3)/4)*Math.floor((e+3)/4)*8;case xo:case So:return Math.floor((n+3)/4)*Math.floor((e+3)/4)*16;case Tc:case wc:return Math.max(n,16)*Math.max(e,8)/4;case Ec:case bc:return Math.max(n,8)*Math.max(e,8)/2;case Ac:case Rc:case Pc:case Lc:return Math.floor((n+3)/4)*Math.floor((e+3)/4)*8;case Cc:case Co:case Dc:return Math.floor((n+3)/4)*Math.floor((e+3)/4)*16;case Nc:return Math.floor((n+3)/4)*Math.floor((e+3)/4)*16;case Ic:return Math.floor((n+4)/5)*Math.floor((e+3)/4)*16;case Uc:return Math.floor((n+4)/5)*Math.floor((e+4)/5)*16;case Fc:return Math.floor((n+5)/6)*Math.floor((e+4)/5)*16;case Oc:return Math.floor((n+5)/6)*Math.floor((e+5)/6)*16;case Bc:return Math.floor((n+7)/8)*Math.floor((e+4)/5)*16;case zc:return Math.floor((n+7)/8)*Math.floor((e+5)/6)*16;case kc:return Math.floor((n+7)/8)*Math.floor((e+7)/8)*16;case Gc:return Math.floor((n+9)/10)*Math.floor((e+4)/5)*16;case Hc:return Math.floor((n+9)/10)*Math.floor((e+5)/6)*16;case Vc:return Math.floor((n+9)/10)*Math.floor((e+7)/8)*16;case Wc:return Math.floor((n+9)/10)*Math.floor((e+9)/10)*16;case Xc:return Math.floor((n+11)/12)*Math.floor((e+9)/10)*16;case qc:return Math.floor((n+11)/12)*Math.floor((e+11)/12)*16;case Yc:case $c:case Kc:return Math.ceil(n/4)*Math.ceil(e/4)*16;case Zc:case Jc:return Math.ceil(n/4)*Math.ceil(e/4)*8;case Po:case Qc:return Math.ceil(n/4)*Math.ceil(e/4)*16}throw new Error(`Unable to determine texture byte length for ${t} format.`)}function h0(n){switch(n){case ni:case ep:return{byteLength:1,components:1};case pa:case tp:case _i:return{byteLength:2,components:1};case bu:case wu:return{byteLength:2,components:4};case Ui:case Tu:case Li:return{byteLength:4,components:1};case np:case ip:return{byteLength:4,components:3}}throw new Error(`THREE.TextureUtils: Unknown texture type ${n}.`)}typeof __THREE_DEVTOOLS__<"u"&&__THREE_DEVTOOLS__.dispatchEvent(new CustomEvent("register",{detail:{revision:Eu}}));typeof window<"u"&&(window.__THREE__?Je("WARNING: Multiple instances of Three.js being imported."):window.__THREE__=Eu);function Np(){let n=null,e=!1,t=null,i=null;function s(r,a){i=n.requestAnimationFrame(s),t(r,a)}return{start:function(){e!==!0&&t!==null&&n!==null&&(i=n.requestAnimationFrame(s),e=!0)},stop:function(){n!==null&&n.cancelAnimationFrame(i),e=!1},setAnimationLoop:function(r){t=r},setContext:function(r){n=r}}}function d0(n){const e=new WeakMap;function t(o,l){const c=o.array,u=o.usage,d=c.byteLength,f=n.createBuffer();n.bindBuffer(l,f),n.bufferData(l,c,u),o.onUploadCallback();let h;if(c instanceof Float32Array)h=n.FLOAT;else if(typeof Float16Array<"u"&&c instanceof Float16Array)h=n.HALF_FLOAT;else if(c instanceof Uint16Array)o.isFloat16BufferAttribute?h=n.HALF_FLOAT:h=n.UNSIGNED_SHORT;else if(c instanceof Int16Array)h=n.SHORT;else if(c instanceof Uint32Array)h=n.UNSIGNED_INT;else if(c instanceof Int32Array)h=n.INT;else if(c instanceof Int8Array)h=n.BYTE;else if(c instanceof Uint8Array)h=n.UNSIGNED_BYTE;else if(c instanceof Uint8ClampedArray)h=n.UNSIGNED_BYTE;else throw new Error("THREE.WebGLAttributes: Unsupported buffer data format: "+c);return{buffer:f,type:h,bytesPerElement:c.BYTES_PER_ELEMENT,version:o.version,size:d}}function i(o,l,c){const u=l.array,d=l.updateRanges;if(n.bindBuffer(c,o),d.length===0)n.bufferSubData(c,0,u);else{d.sort((h,g)=>h.start-g.start);let f=0;for(let h=1;h<d.length;h++){const g=d[f],M=d[h];M.start<=g.start+g.count+1?g.count=Math.max(g.count,M.start+M.count-g.start):(++f,d[f]=M)}d.length=f+1;for(let h=0,g=d.length;h<g;h++){const M=d[h];n.bufferSubData(c,M.start*u.BYTES_PER_ELEMENT,u,M.start,M.count)}l.clearUpdateRanges()}l.onUploadCallback()}function s(o){return o.isInterleavedBufferAttribute&&(o=o.data),e.get(o)}function r(o){o.isInterleavedBufferAttribute&&(o=o.data);const l=e.get(o);l&&(n.deleteBuffer(l.buffer),e.delete(o))}function a(o,l){if(o.isInterleavedBufferAttribute&&(o=o.data),o.isGLBufferAttribute){const u=e.get(o);(!u||u.version<o.version)&&e.set(o,{buffer:o.buffer,type:o.type,bytesPerElement:o.elementSize,version:o.version});return}const c=e.get(o);if(c===void 0)e.set(o,t(o,l));else if(c.version<o.version){if(c.size!==o.array.byteLength)throw new Error("THREE.WebGLAttributes: The size of the buffer attribute's array buffer does not match the original size. Resizing buffer attributes is not supported.");i(c.buffer,o,l),c.version=o.version}}return{get:s,remove:r,update:a}}var p0=`#ifdef USE_ALPHAHASH
	if ( diffuseColor.a < getAlphaHashThreshold( vPosition ) ) discard;
#endif`,m0=`#ifdef USE_ALPHAHASH
	const float ALPHA_HASH_SCALE = 0.05;
	float hash2D( vec2 value ) {
		return fract( 1.0e4 * sin( 17.0 * value.x + 0.1 * value.y ) * ( 0.1 + abs( sin( 13.0 * value.y + value.x ) ) ) );
	}
	float hash3D( vec3 value ) {
		return hash2D( vec2( hash2D( value.xy ), value.z ) );
	}
	float getAlphaHashThreshold( vec3 position ) {
		float maxDeriv = max(
			length( dFdx( position.xyz ) ),
			length( dFdy( position.xyz ) )
		);
		float pixScale = 1.0 / ( ALPHA_HASH_SCALE * maxDeriv );
		vec2 pixScales = vec2(
			exp2( floor( log2( pixScale ) ) ),
			exp2( ceil( log2( pixScale ) ) )
		);
		vec2 alpha = vec2(
			hash3D( floor( pixScales.x * position.xyz ) ),
			hash3D( floor( pixScales.y * position.xyz ) )
		);
		float lerpFactor = fract( log2( pixScale ) );
		float x = ( 1.0 - lerpFactor ) * alpha.x + lerpFactor * alpha.y;
		float a = min( lerpFactor, 1.0 - lerpFactor );
		vec3 cases = vec3(
			x * x / ( 2.0 * a * ( 1.0 - a ) ),
			( x - 0.5 * a ) / ( 1.0 - a ),
			1.0 - ( ( 1.0 - x ) * ( 1.0 - x ) / ( 2.0 * a * ( 1.0 - a ) ) )
		);
		float threshold = ( x < ( 1.0 - a ) )
			? ( ( x < a ) ? cases.x : cases.y )
			: cases.z;
		return clamp( threshold , 1.0e-6, 1.0 );
	}
#endif`,g0=`#ifdef USE_ALPHAMAP
	diffuseColor.a *= texture2D( alphaMap, vAlphaMapUv ).g;
#endif`,_0=`#ifdef USE_ALPHAMAP
	uniform sampler2D alphaMap;
#endif`,v0=`#ifdef USE_ALPHATEST
	#ifdef ALPHA_TO_COVERAGE
	diffuseColor.a = smoothstep( alphaTest, alphaTest + fwidth( diffuseColor.a ), diffuseColor.a );
	if ( diffuseColor.a == 0.0 ) discard;
	#else
	if ( diffuseColor.a < alphaTest ) discard;
	#endif
#endif`,x0=`#ifdef USE_ALPHATEST
	uniform float alphaTest;
#endif`,S0=`#ifdef USE_AOMAP
	float ambientOcclusion = ( texture2D( aoMap, vAoMapUv ).r - 1.0 ) * aoMapIntensity + 1.0;
	reflectedLight.indirectDiffuse *= ambientOcclusion;
	#if defined( USE_CLEARCOAT ) 
		clearcoatSpecularIndirect *= ambientOcclusion;
	#endif
	#if defined( USE_SHEEN ) 
		sheenSpecularIndirect *= ambientOcclusion;
	#endif
	#if defined( USE_ENVMAP ) && defined( STANDARD )
		float dotNV = saturate( dot( geometryNormal, geometryViewDir ) );
		reflectedLight.indirectSpecular *= computeSpecularOcclusion( dotNV, ambientOcclusion, material.roughness );
	#endif
#endif`,M0=`#ifdef USE_AOMAP
	uniform sampler2D aoMap;
	uniform float aoMapIntensity;
#endif`,y0=`#ifdef USE_BATCHING
	#if ! defined( GL_ANGLE_multi_draw )
	#define gl_DrawID _gl_DrawID
	uniform int _gl_DrawID;
	#endif
	uniform highp sampler2D batchingTexture;
	uniform highp usampler2D batchingIdTexture;
	mat4 getBatchingMatrix( const in float i ) {
		int size = textureSize( batchingTexture, 0 ).x;
		int j = int( i ) * 4;
		int x = j % size;
		int y = j / size;
		vec4 v1 = texelFetch( batchingTexture, ivec2( x, y ), 0 );
		vec4 v2 = texelFetch( batchingTexture, ivec2( x + 1, y ), 0 );
		vec4 v3 = texelFetch( batchingTexture, ivec2( x + 2, y ), 0 );
		vec4 v4 = texelFetch( batchingTexture, ivec2( x + 3, y ), 0 );
		return mat4( v1, v2, v3, v4 );
	}
	float getIndirectIndex( const in int i ) {
		int size = textureSize( batchingIdTexture, 0 ).x;
		int x = i % size;
		int y = i / size;
		return float( texelFetch( batchingIdTexture, ivec2( x, y ), 0 ).r );
	}
#endif
#ifdef USE_BATCHING_COLOR
	uniform sampler2D batchingColorTexture;
	vec4 getBatchingColor( const in float i ) {
		int size = textureSize( batchingColorTexture, 0 ).x;
		int j = int( i );
		int x = j % size;
		int y = j / size;
		return texelFetch( batchingColorTexture, ivec2( x, y ), 0 );
	}
#endif`,E0=`#ifdef USE_BATCHING
	mat4 batchingMatrix = getBatchingMatrix( getIndirectIndex( gl_DrawID ) );
#endif`,T0=`vec3 transformed = vec3( position );
#ifdef USE_ALPHAHASH
	vPosition = vec3( position );
#endif`,b0=`vec3 objectNormal = vec3( normal );
#ifdef USE_TANGENT
	vec3 objectTangent = vec3( tangent.xyz );
#endif`,w0=`float G_BlinnPhong_Implicit( ) {
	return 0.25;
}
float D_BlinnPhong( const in float shininess, const in float dotNH ) {
	return RECIPROCAL_PI * ( shininess * 0.5 + 1.0 ) * pow( dotNH, shininess );
}
vec3 BRDF_BlinnPhong( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in vec3 specularColor, const in float shininess ) {
	vec3 halfDir = normalize( lightDir + viewDir );
	float dotNH = saturate( dot( normal, halfDir ) );
	float dotVH = saturate( dot( viewDir, halfDir ) );
	vec3 F = F_Schlick( specularColor, 1.0, dotVH );
	float G = G_BlinnPhong_Implicit( );
	float D = D_BlinnPhong( shininess, dotNH );
	return F * ( G * D );
} // validated`,A0=`#ifdef USE_IRIDESCENCE
	const mat3 XYZ_TO_REC709 = mat3(
		 3.2404542, -0.9692660,  0.0556434,
		-1.5371385,  1.8760108, -0.2040259,
		-0.4985314,  0.0415560,  1.0572252
	);
	vec3 Fresnel0ToIor( vec3 fresnel0 ) {
		vec3 sqrtF0 = sqrt( fresnel0 );
		return ( vec3( 1.0 ) + sqrtF0 ) / ( vec3( 1.0 ) - sqrtF0 );
	}
	vec3 IorToFresnel0( vec3 transmittedIor, float incidentIor ) {
		return pow2( ( transmittedIor - vec3( incidentIor ) ) / ( transmittedIor + vec3( incidentIor ) ) );
	}
	float IorToFresnel0( float transmittedIor, float incidentIor ) {
		return pow2( ( transmittedIor - incidentIor ) / ( transmittedIor + incidentIor ));
	}
	vec3 evalSensitivity( float OPD, vec3 shift ) {
		float phase = 2.0 * PI * OPD * 1.0e-9;
		vec3 val = vec3( 5.4856e-13, 4.4201e-13, 5.2481e-13 );
		vec3 pos = vec3( 1.6810e+06, 1.7953e+06, 2.2084e+06 );
		vec3 var = vec3( 4.3278e+09, 9.3046e+09, 6.6121e+09 );
		vec3 xyz = val * sqrt( 2.0 * PI * var ) * cos( pos * phase + shift ) * exp( - pow2( phase ) * var );
		xyz.x += 9.7470e-14 * sqrt( 2.0 * PI * 4.5282e+09 ) * cos( 2.2399e+06 * phase + shift[ 0 ] ) * exp( - 4.5282e+09 * pow2( phase ) );
		xyz /= 1.0685e-7;
		vec3 rgb = XYZ_TO_REC709 * xyz;
		return rgb;
	}
	vec3 evalIridescence( float outsideIOR, float eta2, float cosTheta1, float thinFilmThickness, vec3 baseF0 ) {
		vec3 I;
		float iridescenceIOR = mix( outsideIOR, eta2, smoothstep( 0.0, 0.03, thinFilmThickness ) );
		float sinTheta2Sq = pow2( outsideIOR / iridescenceIOR ) * ( 1.0 - pow2( cosTheta1 ) );
		float cosTheta2Sq = 1.0 - sinTheta2Sq;
		if ( cosTheta2Sq < 0.0 ) {
			return vec3( 1.0 );
		}
		float cosTheta2 = sqrt( cosTheta2Sq );
		float R0 = IorToFresnel0( iridescenceIOR, outsideIOR );
		float R12 = F_Schlick( R0, 1.0, cosTheta1 );
		float T121 = 1.0 - R12;
		float phi12 = 0.0;
		if ( iridescenceIOR < outsideIOR ) phi12 = PI;
		float phi21 = PI - phi12;
		vec3 baseIOR = Fresnel0ToIor( clamp( baseF0, 0.0, 0.9999 ) );		vec3 R1 = IorToFresnel0( baseIOR, iridescenceIOR );
		vec3 R23 = F_Schlick( R1, 1.0, cosTheta2 );
		vec3 phi23 = vec3( 0.0 );
		if ( baseIOR[ 0 ] < iridescenceIOR ) phi23[ 0 ] = PI;
		if ( baseIOR[ 1 ] < iridescenceIOR ) phi23[ 1 ] = PI;
		if ( baseIOR[ 2 ] < iridescenceIOR ) phi23[ 2 ] = PI;
		float OPD = 2.0 * iridescenceIOR * thinFilmThickness * cosTheta2;
		vec3 phi = vec3( phi21 ) + phi23;
		vec3 R123 = clamp( R12 * R23, 1e-5, 0.9999 );
		vec3 r123 = sqrt( R123 );
		vec3 Rs = pow2( T121 ) * R23 / ( vec3( 1.0 ) - R123 );
		vec3 C0 = R12 + Rs;
		I = C0;
		vec3 Cm = Rs - T121;
		for ( int m = 1; m <= 2; ++ m ) {
			Cm *= r123;
			vec3 Sm = 2.0 * evalSensitivity( float( m ) * OPD, float( m ) * phi );
			I += Cm * Sm;
		}
		return max( I, vec3( 0.0 ) );
	}
#endif`,R0=`#ifdef USE_BUMPMAP
	uniform sampler2D bumpMap;
	uniform float bumpScale;
	vec2 dHdxy_fwd() {
		vec2 dSTdx = dFdx( vBumpMapUv );
		vec2 dSTdy = dFdy( vBumpMapUv );
		float Hll = bumpScale * texture2D( bumpMap, vBumpMapUv ).x;
		float dBx = bumpScale * texture2D( bumpMap, vBumpMapUv + dSTdx ).x - Hll;
		float dBy = bumpScale * texture2D( bumpMap, vBumpMapUv + dSTdy ).x - Hll;
		return vec2( dBx, dBy );
	}
	vec3 perturbNormalArb( vec3 surf_pos, vec3 surf_norm, vec2 dHdxy, float faceDirection ) {
		vec3 vSigmaX = normalize( dFdx( surf_pos.xyz ) );
		vec3 vSigmaY = normalize( dFdy( surf_pos.xyz ) );
		vec3 vN = surf_norm;
		vec3 R1 = cross( vSigmaY, vN );
		vec3 R2 = cross( vN, vSigmaX );
		float fDet = dot( vSigmaX, R1 ) * faceDirection;
		vec3 vGrad = sign( fDet ) * ( dHdxy.x * R1 + dHdxy.y * R2 );
		return normalize( abs( fDet ) * surf_norm - vGrad );
	}
#endif`,C0=`#if NUM_CLIPPING_PLANES > 0
	vec4 plane;
	#ifdef ALPHA_TO_COVERAGE
		float distanceToPlane, distanceGradient;
		float clipOpacity = 1.0;
		#pragma unroll_loop_start
		for ( int i = 0; i < UNION_CLIPPING_PLANES; i ++ ) {
			plane = clippingPlanes[ i ];
			distanceToPlane = - dot( vClipPosition, plane.xyz ) + plane.w;
			distanceGradient = fwidth( distanceToPlane ) / 2.0;
			clipOpacity *= smoothstep( - distanceGradient, distanceGradient, distanceToPlane );
			if ( clipOpacity == 0.0 ) discard;
		}
		#pragma unroll_loop_end
		#if UNION_CLIPPING_PLANES < NUM_CLIPPING_PLANES
			float unionClipOpacity = 1.0;
			#pragma unroll_loop_start
			for ( int i = UNION_CLIPPING_PLANES; i < NUM_CLIPPING_PLANES; i ++ ) {
				plane = clippingPlanes[ i ];
				distanceToPlane = - dot( vClipPosition, plane.xyz ) + plane.w;
				distanceGradient = fwidth( distanceToPlane ) / 2.0;
				unionClipOpacity *= 1.0 - smoothstep( - distanceGradient, distanceGradient, distanceToPlane );
			}
			#pragma unroll_loop_end
			clipOpacity *= 1.0 - unionClipOpacity;
		#endif
		diffuseColor.a *= clipOpacity;
		if ( diffuseColor.a == 0.0 ) discard;
	#else
		#pragma unroll_loop_start
		for ( int i = 0; i < UNION_CLIPPING_PLANES; i ++ ) {
			plane = clippingPlanes[ i ];
			if ( dot( vClipPosition, plane.xyz ) > plane.w ) discard;
		}
		#pragma unroll_loop_end
		#if UNION_CLIPPING_PLANES < NUM_CLIPPING_PLANES
			bool clipped = true;
			#pragma unroll_loop_start
			for ( int i = UNION_CLIPPING_PLANES; i < NUM_CLIPPING_PLANES; i ++ ) {
				plane = clippingPlanes[ i ];
				clipped = ( dot( vClipPosition, plane.xyz ) > plane.w ) && clipped;
			}
			#pragma unroll_loop_end
			if ( clipped ) discard;
		#endif
	#endif
#endif`,P0=`#if NUM_CLIPPING_PLANES > 0
	varying vec3 vClipPosition;
	uniform vec4 clippingPlanes[ NUM_CLIPPING_PLANES ];
#endif`,L0=`#if NUM_CLIPPING_PLANES > 0
	varying vec3 vClipPosition;
#endif`,D0=`#if NUM_CLIPPING_PLANES > 0
	vClipPosition = - mvPosition.xyz;
#endif`,N0=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA )
	diffuseColor *= vColor;
#endif`,I0=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA )
	varying vec4 vColor;
#endif`,U0=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA ) || defined( USE_INSTANCING_COLOR ) || defined( USE_BATCHING_COLOR )
	varying vec4 vColor;
#endif`,F0=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA ) || defined( USE_INSTANCING_COLOR ) || defined( USE_BATCHING_COLOR )
	vColor = vec4( 1.0 );
#endif
#ifdef USE_COLOR_ALPHA
	vColor *= color;
#elif defined( USE_COLOR )
	vColor.rgb *= color;
#endif
#ifdef USE_INSTANCING_COLOR
	vColor.rgb *= instanceColor.rgb;
#endif
#ifdef USE_BATCHING_COLOR
	vColor *= getBatchingColor( getIndirectIndex( gl_DrawID ) );
#endif`,O0=`#define PI 3.141592653589793
#define PI2 6.283185307179586
#define PI_HALF 1.5707963267948966
#define RECIPROCAL_PI 0.3183098861837907
#define RECIPROCAL_PI2 0.15915494309189535
#define EPSILON 1e-6
#ifndef saturate
#define saturate( a ) clamp( a, 0.0, 1.0 )
#endif
#define whiteComplement( a ) ( 1.0 - saturate( a ) )
float pow2( const in float x ) { return x*x; }
vec3 pow2( const in vec3 x ) { return x*x; }
float pow3( const in float x ) { return x*x*x; }
float pow4( const in float x ) { float x2 = x*x; return x2*x2; }
float max3( const in vec3 v ) { return max( max( v.x, v.y ), v.z ); }
float average( const in vec3 v ) { return dot( v, vec3( 0.3333333 ) ); }
highp float rand( const in vec2 uv ) {
	const highp float a = 12.9898, b = 78.233, c = 43758.5453;
	highp float dt = dot( uv.xy, vec2( a,b ) ), sn = mod( dt, PI );
	return fract( sin( sn ) * c );
}
#ifdef HIGH_PRECISION
	float precisionSafeLength( vec3 v ) { return length( v ); }
#else
	float precisionSafeLength( vec3 v ) {
		float maxComponent = max3( abs( v ) );
		return length( v / maxComponent ) * maxComponent;
	}
#endif
struct IncidentLight {
	vec3 color;
	vec3 direction;
	bool visible;
};
struct ReflectedLight {
	vec3 directDiffuse;
	vec3 directSpecular;
	vec3 indirectDiffuse;
	vec3 indirectSpecular;
};
#ifdef USE_ALPHAHASH
	varying vec3 vPosition;
#endif
vec3 transformDirection( in vec3 dir, in mat4 matrix ) {
	return normalize( ( matrix * vec4( dir, 0.0 ) ).xyz );
}
#define inverseTransformDirection transformDirectionByInverseViewMatrix
vec3 transformNormalByInverseViewMatrix( in vec3 normal, in mat4 viewMatrix ) {
	return normalize( ( vec4( normal, 0.0 ) * viewMatrix ).xyz );
}
vec3 transformDirectionByInverseViewMatrix( in vec3 dir, in mat4 viewMatrix ) {
	return normalize( ( vec4( dir, 0.0 ) * viewMatrix ).xyz );
}
bool isPerspectiveMatrix( mat4 m ) {
	return m[ 2 ][ 3 ] == - 1.0;
}
vec2 equirectUv( in vec3 dir ) {
	float u = atan( dir.z, dir.x ) * RECIPROCAL_PI2 + 0.5;
	float v = asin( clamp( dir.y, - 1.0, 1.0 ) ) * RECIPROCAL_PI + 0.5;
	return vec2( u, v );
}
vec3 BRDF_Lambert( const in vec3 diffuseColor ) {
	return RECIPROCAL_PI * diffuseColor;
}
vec3 F_Schlick( const in vec3 f0, const in float f90, const in float dotVH ) {
	float fresnel = exp2( ( - 5.55473 * dotVH - 6.98316 ) * dotVH );
	return f0 * ( 1.0 - fresnel ) + ( f90 * fresnel );
}
float F_Schlick( const in float f0, const in float f90, const in float dotVH ) {
	float fresnel = exp2( ( - 5.55473 * dotVH - 6.98316 ) * dotVH );
	return f0 * ( 1.0 - fresnel ) + ( f90 * fresnel );
} // validated`,B0=`vec3 transformedNormal = objectNormal;
#ifdef USE_TANGENT
	vec3 transformedTangent = objectTangent;
#endif
#ifdef USE_BATCHING
	mat3 bm = mat3( batchingMatrix );
	transformedNormal /= vec3( dot( bm[ 0 ], bm[ 0 ] ), dot( bm[ 1 ], bm[ 1 ] ), dot( bm[ 2 ], bm[ 2 ] ) );
	transformedNormal = bm * transformedNormal;
	#ifdef USE_TANGENT
		transformedTangent = bm * transformedTangent;
	#endif
#endif
#ifdef USE_INSTANCING
	mat3 im = mat3( instanceMatrix );
	transformedNormal /= vec3( dot( im[ 0 ], im[ 0 ] ), dot( im[ 1 ], im[ 1 ] ), dot( im[ 2 ], im[ 2 ] ) );
	transformedNormal = im * transformedNormal;
	#ifdef USE_TANGENT
		transformedTangent = im * transformedTangent;
	#endif
#endif
transformedNormal = normalMatrix * transformedNormal;
#ifdef FLIP_SIDED
	transformedNormal = - transformedNormal;
#endif
#ifdef USE_TANGENT
	transformedTangent = ( modelViewMatrix * vec4( transformedTangent, 0.0 ) ).xyz;
#endif`,z0=`#ifdef USE_DISPLACEMENTMAP
	uniform sampler2D displacementMap;
	uniform float displacementScale;
	uniform float displacementBias;
#endif`,k0=`#ifdef USE_DISPLACEMENTMAP
	transformed += normalize( objectNormal ) * ( texture2D( displacementMap, vDisplacementMapUv ).x * displacementScale + displacementBias );
#endif`,G0=`#ifdef USE_EMISSIVEMAP
	vec4 emissiveColor = texture2D( emissiveMap, vEmissiveMapUv );
	#ifdef DECODE_VIDEO_TEXTURE_EMISSIVE
		emissiveColor = sRGBTransferEOTF( emissiveColor );
	#endif
	totalEmissiveRadiance *= emissiveColor.rgb;
#endif`,H0=`#ifdef USE_EMISSIVEMAP
	uniform sampler2D emissiveMap;
#endif`,V0="gl_FragColor = linearToOutputTexel( gl_FragColor );",W0=`vec4 LinearTransferOETF( in vec4 value ) {
	return value;
}
vec4 sRGBTransferEOTF( in vec4 value ) {
	return vec4( mix( pow( value.rgb * 0.9478672986 + vec3( 0.0521327014 ), vec3( 2.4 ) ), value.rgb * 0.0773993808, vec3( lessThanEqual( value.rgb, vec3( 0.04045 ) ) ) ), value.a );
}
vec4 sRGBTransferOETF( in vec4 value ) {
	return vec4( mix( pow( value.rgb, vec3( 0.41666 ) ) * 1.055 - vec3( 0.055 ), value.rgb * 12.92, vec3( lessThanEqual( value.rgb, vec3( 0.0031308 ) ) ) ), value.a );
}`,X0=`#ifdef USE_ENVMAP
	#ifdef ENV_WORLDPOS
		vec3 cameraToFrag;
		if ( isOrthographic ) {
			cameraToFrag = normalize( vec3( - viewMatrix[ 0 ][ 2 ], - viewMatrix[ 1 ][ 2 ], - viewMatrix[ 2 ][ 2 ] ) );
		} else {
			cameraToFrag = normalize( vWorldPosition - cameraPosition );
		}
		vec3 worldNormal = transformNormalByInverseViewMatrix( normal, viewMatrix );
		#ifdef ENVMAP_MODE_REFLECTION
			vec3 reflectVec = reflect( cameraToFrag, worldNormal );
		#else
			vec3 reflectVec = refract( cameraToFrag, worldNormal, refractionRatio );
		#endif
	#else
		vec3 reflectVec = vReflect;
	#endif
	#ifdef ENVMAP_TYPE_CUBE
		vec4 envColor = textureCube( envMap, envMapRotation * reflectVec );
		#ifdef ENVMAP_BLENDING_MULTIPLY
			outgoingLight = mix( outgoingLight, outgoingLight * envColor.xyz, specularStrength * reflectivity );
		#elif defined( ENVMAP_BLENDING_MIX )
			outgoingLight = mix( outgoingLight, envColor.xyz, specularStrength * reflectivity );
		#elif defined( ENVMAP_BLENDING_ADD )
			outgoingLight += envColor.xyz * specularStrength * reflectivity;
		#endif
	#endif
#endif`,q0=`#ifdef USE_ENVMAP
	uniform float envMapIntensity;
	uniform mat3 envMapRotation;
	uniform samplerCube envMap;
	#ifdef ENVMAP_TYPE_PMREM
		float roughnessToMip( const in float roughness ) {
			float r = clamp( roughness, 0.0, 1.0 );
			return ENVMAP_MAX_LOD * r * ( 2.0 - r );
		}
	#endif
#endif`,Y0=`#ifdef USE_ENVMAP
	uniform float reflectivity;
	#if defined( USE_BUMPMAP ) || defined( USE_NORMALMAP ) || defined( PHONG ) || defined( LAMBERT )
		#define ENV_WORLDPOS
	#endif
	#ifdef ENV_WORLDPOS
		varying vec3 vWorldPosition;
		uniform float refractionRatio;
	#else
		varying vec3 vReflect;
	#endif
#endif`,$0=`#ifdef USE_ENVMAP
	#if defined( USE_BUMPMAP ) || defined( USE_NORMALMAP ) || defined( PHONG ) || defined( LAMBERT )
		#define ENV_WORLDPOS
	#endif
	#ifdef ENV_WORLDPOS
		
		varying vec3 vWorldPosition;
	#else
		varying vec3 vReflect;
		uniform float refractionRatio;
	#endif
#endif`,K0=`#ifdef USE_ENVMAP
	#ifdef ENV_WORLDPOS
		vWorldPosition = worldPosition.xyz;
	#else
		vec3 cameraToVertex;
		if ( isOrthographic ) {
			cameraToVertex = normalize( vec3( - viewMatrix[ 0 ][ 2 ], - viewMatrix[ 1 ][ 2 ], - viewMatrix[ 2 ][ 2 ] ) );
		} else {
			cameraToVertex = normalize( worldPosition.xyz - cameraPosition );
		}
		vec3 worldNormal = transformNormalByInverseViewMatrix( transformedNormal, viewMatrix );
		#ifdef ENVMAP_MODE_REFLECTION
			vReflect = reflect( cameraToVertex, worldNormal );
		#else
			vReflect = refract( cameraToVertex, worldNormal, refractionRatio );
		#endif
	#endif
#endif`,Z0=`#ifdef USE_FOG
	vFogDepth = - mvPosition.z;
#endif`,J0=`#ifdef USE_FOG
	varying float vFogDepth;
#endif`,Q0=`#ifdef USE_FOG
	#ifdef FOG_EXP2
		float fogFactor = 1.0 - exp( - fogDensity * fogDensity * vFogDepth * vFogDepth );
	#else
		float fogFactor = smoothstep( fogNear, fogFar, vFogDepth );
	#endif
	gl_FragColor.rgb = mix( gl_FragColor.rgb, fogColor, fogFactor );
#endif`,j0=`#ifdef USE_FOG
	uniform vec3 fogColor;
	varying float vFogDepth;
	#ifdef FOG_EXP2
		uniform float fogDensity;
	#else
		uniform float fogNear;
		uniform float fogFar;
	#endif
#endif`,ev=`#ifdef USE_GRADIENTMAP
	uniform sampler2D gradientMap;
#endif
vec3 getGradientIrradiance( vec3 normal, vec3 lightDirection ) {
	float dotNL = dot( normal, lightDirection );
	vec2 coord = vec2( dotNL * 0.5 + 0.5, 0.0 );
	#ifdef USE_GRADIENTMAP
		return vec3( texture2D( gradientMap, coord ).r );
	#else
		vec2 fw = fwidth( coord ) * 0.5;
		return mix( vec3( 0.7 ), vec3( 1.0 ), smoothstep( 0.7 - fw.x, 0.7 + fw.x, coord.x ) );
	#endif
}`,tv=`#ifdef USE_LIGHTMAP
	uniform sampler2D lightMap;
	uniform float lightMapIntensity;
#endif`,nv=`LambertMaterial material;
material.diffuseColor = diffuseColor.rgb;
material.specularStrength = specularStrength;`,iv=`varying vec3 vViewPosition;
struct LambertMaterial {
	vec3 diffuseColor;
	float specularStrength;
};
void RE_Direct_Lambert( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in LambertMaterial material, inout ReflectedLight reflectedLight ) {
	float dotNL = saturate( dot( geometryNormal, directLight.direction ) );
	vec3 irradiance = dotNL * directLight.color;
	reflectedLight.directDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
void RE_IndirectDiffuse_Lambert( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in LambertMaterial material, inout ReflectedLight reflectedLight ) {
	reflectedLight.indirectDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
#define RE_Direct				RE_Direct_Lambert
#define RE_IndirectDiffuse		RE_IndirectDiffuse_Lambert`,sv=`uniform bool receiveShadow;
uniform vec3 ambientLightColor;
#if defined( USE_LIGHT_PROBES )
	uniform vec3 lightProbe[ 9 ];
#endif
vec3 shGetIrradianceAt( in vec3 normal, in vec3 shCoefficients[ 9 ] ) {
	float x = normal.x, y = normal.y, z = normal.z;
	vec3 result = shCoefficients[ 0 ] * 0.886227;
	result += shCoefficients[ 1 ] * 2.0 * 0.511664 * y;
	result += shCoefficients[ 2 ] * 2.0 * 0.511664 * z;
	result += shCoefficients[ 3 ] * 2.0 * 0.511664 * x;
	result += shCoefficients[ 4 ] * 2.0 * 0.429043 * x * y;
	result += shCoefficients[ 5 ] * 2.0 * 0.429043 * y * z;
	result += shCoefficients[ 6 ] * ( 0.743125 * z * z - 0.247708 );
	result += shCoefficients[ 7 ] * 2.0 * 0.429043 * x * z;
	result += shCoefficients[ 8 ] * 0.429043 * ( x * x - y * y );
	return result;
}
vec3 getLightProbeIrradiance( const in vec3 lightProbe[ 9 ], const in vec3 normal ) {
	vec3 worldNormal = transformNormalByInverseViewMatrix( normal, viewMatrix );
	vec3 irradiance = shGetIrradianceAt( worldNormal, lightProbe );
	return irradiance;
}
vec3 getAmbientLightIrradiance( const in vec3 ambientLightColor ) {
	vec3 irradiance = ambientLightColor;
	return irradiance;
}
float getDistanceAttenuation( const in float lightDistance, const in float cutoffDistance, const in float decayExponent ) {
	float distanceFalloff = 1.0 / max( pow( lightDistance, decayExponent ), 0.01 );
	if ( cutoffDistance > 0.0 ) {
		distanceFalloff *= pow2( saturate( 1.0 - pow4( lightDistance / cutoffDistance ) ) );
	}
	return distanceFalloff;
}
float getSpotAttenuation( const in float coneCosine, const in float penumbraCosine, const in float angleCosine ) {
	return smoothstep( coneCosine, penumbraCosine, angleCosine );
}
#if NUM_SUN_LIGHTS > 0
	struct SunLight {
		vec3 direction;
		vec3 color;
	};
	uniform SunLight sunLights[ NUM_SUN_LIGHTS ];
	void getSunLightInfo( const in SunLight sunLight, out IncidentLight light ) {
		light.color = sunLight.color;
		light.direction = sunLight.direction;
		light.visible = true;
	}
#endif
#if NUM_DIR_LIGHTS > 0
	struct DirectionalLight {
		vec3 direction;
		vec3 color;
	};
	uniform DirectionalLight directionalLights[ NUM_DIR_LIGHTS ];
	void getDirectionalLightInfo( const in DirectionalLight directionalLight, out IncidentLight light ) {
		light.color = directionalLight.color;
		light.direction = directionalLight.direction;
		light.visible = true;
	}
#endif
#if NUM_POINT_LIGHTS > 0
	struct PointLight {
		vec3 position;
		vec3 color;
		float distance;
		float decay;
	};
	uniform PointLight pointLights[ NUM_POINT_LIGHTS ];
	void getPointLightInfo( const in PointLight pointLight, const in vec3 geometryPosition, out IncidentLight light ) {
		vec3 lVector = pointLight.position - geometryPosition;
		light.direction = normalize( lVector );
		float lightDistance = length( lVector );
		light.color = pointLight.color;
		light.color *= getDistanceAttenuation( lightDistance, pointLight.distance, pointLight.decay );
		light.visible = ( light.color != vec3( 0.0 ) );
	}
#endif
#if NUM_SPOT_LIGHTS > 0
	struct SpotLight {
		vec3 position;
		vec3 direction;
		vec3 color;
		float distance;
		float decay;
		float coneCos;
		float penumbraCos;
	};
	uniform SpotLight spotLights[ NUM_SPOT_LIGHTS ];
	void getSpotLightInfo( const in SpotLight spotLight, const in vec3 geometryPosition, out IncidentLight light ) {
		vec3 lVector = spotLight.position - geometryPosition;
		light.direction = normalize( lVector );
		float angleCos = dot( light.direction, spotLight.direction );
		float spotAttenuation = getSpotAttenuation( spotLight.coneCos, spotLight.penumbraCos, angleCos );
		if ( spotAttenuation > 0.0 ) {
			float lightDistance = length( lVector );
			light.color = spotLight.color * spotAttenuation;
			light.color *= getDistanceAttenuation( lightDistance, spotLight.distance, spotLight.decay );
			light.visible = ( light.color != vec3( 0.0 ) );
		} else {
			light.color = vec3( 0.0 );
			light.visible = false;
		}
	}
#endif
#if NUM_RECT_AREA_LIGHTS > 0
	struct RectAreaLight {
		vec3 color;
		vec3 position;
		vec3 halfWidth;
		vec3 halfHeight;
	};
	uniform sampler2D ltc_1;	uniform sampler2D ltc_2;
	uniform RectAreaLight rectAreaLights[ NUM_RECT_AREA_LIGHTS ];
#endif
#if NUM_HEMI_LIGHTS > 0
	struct HemisphereLight {
		vec3 direction;
		vec3 skyColor;
		vec3 groundColor;
	};
	uniform HemisphereLight hemisphereLights[ NUM_HEMI_LIGHTS ];
	vec3 getHemisphereLightIrradiance( const in HemisphereLight hemiLight, const in vec3 normal ) {
		float dotNL = dot( normal, hemiLight.direction );
		float hemiDiffuseWeight = 0.5 * dotNL + 0.5;
		vec3 irradiance = mix( hemiLight.groundColor, hemiLight.skyColor, hemiDiffuseWeight );
		return irradiance;
	}
#endif
#include <lightprobes_pars_fragment>`,rv=`#ifdef USE_ENVMAP
	vec3 getIBLIrradiance( const in vec3 normal ) {
		#ifdef ENVMAP_TYPE_PMREM
			vec3 worldNormal = transformNormalByInverseViewMatrix( normal, viewMatrix );
			vec4 envMapColor = textureLod( envMap, envMapRotation * worldNormal, ENVMAP_MAX_LOD );
			return PI * envMapColor.rgb * envMapIntensity;
		#else
			return vec3( 0.0 );
		#endif
	}
	vec3 getIBLRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness ) {
		#ifdef ENVMAP_TYPE_PMREM
			vec3 reflectVec = reflect( - viewDir, normal );
			reflectVec = normalize( mix( reflectVec, normal, pow4( roughness ) ) );
			reflectVec = transformDirectionByInverseViewMatrix( reflectVec, viewMatrix );
			vec4 envMapColor = textureLod( envMap, envMapRotation * reflectVec, roughnessToMip( roughness ) );
			return envMapColor.rgb * envMapIntensity;
		#else
			return vec3( 0.0 );
		#endif
	}
	#ifdef USE_RETROREFLECTION
		vec3 getIBLRetroRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness ) {
			#ifdef ENVMAP_TYPE_PMREM
				vec3 retroVec = normalize( mix( viewDir, normal, pow4( roughness ) ) );
				retroVec = transformDirectionByInverseViewMatrix( retroVec, viewMatrix );
				vec4 envMapColor = textureLod( envMap, envMapRotation * retroVec, roughnessToMip( roughness ) );
				return envMapColor.rgb * envMapIntensity;
			#else
				return vec3( 0.0 );
			#endif
		}
	#endif
	#ifdef USE_ANISOTROPY
		vec3 getIBLAnisotropyRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness, const in vec3 bitangent, const in float anisotropy ) {
			#ifdef ENVMAP_TYPE_PMREM
				vec3 bentNormal = cross( bitangent, viewDir );
				bentNormal = normalize( cross( bentNormal, bitangent ) );
				bentNormal = normalize( mix( bentNormal, normal, pow2( pow2( 1.0 - anisotropy * ( 1.0 - roughness ) ) ) ) );
				return getIBLRadiance( viewDir, bentNormal, roughness );
			#else
				return vec3( 0.0 );
			#endif
		}
		#ifdef USE_RETROREFLECTION
			vec3 getIBLAnisotropyRetroRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness, const in vec3 bitangent, const in float anisotropy ) {
				#ifdef ENVMAP_TYPE_PMREM
					vec3 bentNormal = cross( bitangent, viewDir );
					bentNormal = normalize( cross( bentNormal, bitangent ) );
					bentNormal = normalize( mix( bentNormal, normal, pow2( pow2( 1.0 - anisotropy * ( 1.0 - roughness ) ) ) ) );
					return getIBLRetroRadiance( viewDir, bentNormal, roughness );
				#else
					return vec3( 0.0 );
				#endif
			}
		#endif
	#endif
#endif`,av=`ToonMaterial material;
material.diffuseColor = diffuseColor.rgb;`,ov=`varying vec3 vViewPosition;
struct ToonMaterial {
	vec3 diffuseColor;
};
void RE_Direct_Toon( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in ToonMaterial material, inout ReflectedLight reflectedLight ) {
	vec3 irradiance = getGradientIrradiance( geometryNormal, directLight.direction ) * directLight.color;
	reflectedLight.directDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
void RE_IndirectDiffuse_Toon( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in ToonMaterial material, inout ReflectedLight reflectedLight ) {
	reflectedLight.indirectDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
#define RE_Direct				RE_Direct_Toon
#define RE_IndirectDiffuse		RE_IndirectDiffuse_Toon`,lv=`BlinnPhongMaterial material;
material.diffuseColor = diffuseColor.rgb;
material.specularColor = specular;
material.specularShininess = shininess;
material.specularStrength = specularStrength;`,cv=`varying vec3 vViewPosition;
struct BlinnPhongMaterial {
	vec3 diffuseColor;
	vec3 specularColor;
	float specularShininess;
	float specularStrength;
};
void RE_Direct_BlinnPhong( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in BlinnPhongMaterial material, inout ReflectedLight reflectedLight ) {
	float dotNL = saturate( dot( geometryNormal, directLight.direction ) );
	vec3 irradiance = dotNL * directLight.color;
	reflectedLight.directDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
	reflectedLight.directSpecular += irradiance * BRDF_BlinnPhong( directLight.direction, geometryViewDir, geometryNormal, material.specularColor, material.specularShininess ) * material.specularStrength;
}
void RE_IndirectDiffuse_BlinnPhong( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in BlinnPhongMaterial material, inout ReflectedLight reflectedLight ) {
	reflectedLight.indirectDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
#define RE_Direct				RE_Direct_BlinnPhong
#define RE_IndirectDiffuse		RE_IndirectDiffuse_BlinnPhong`,uv=`PhysicalMaterial material;
material.diffuseColor = diffuseColor.rgb;
material.diffuseContribution = diffuseColor.rgb * ( 1.0 - metalnessFactor );
material.metalness = metalnessFactor;
vec3 dxy = max( abs( dFdx( nonPerturbedNormal ) ), abs( dFdy( nonPerturbedNormal ) ) );
float geometryRoughness = max( max( dxy.x, dxy.y ), dxy.z );
material.roughness = max( roughnessFactor, 0.045 );
material.roughness += geometryRoughness;
material.roughness = min( material.roughness, 1.0 );
#ifdef USE_DIFFUSE_ROUGHNESS
	float diffuseRoughnessFactor = diffuseRoughness;
	#ifdef USE_DIFFUSE_ROUGHNESSMAP
		diffuseRoughnessFactor *= texture2D( diffuseRoughnessMap, vDiffuseRoughnessMapUv ).r;
	#endif
	material.diffuseRoughness = saturate( diffuseRoughnessFactor );
#endif
#ifdef IOR
	material.ior = ior;
	#ifdef USE_SPECULAR
		float specularIntensityFactor = specularIntensity;
		vec3 specularColorFactor = specularColor;
		#ifdef USE_SPECULAR_COLORMAP
			specularColorFactor *= texture2D( specularColorMap, vSpecularColorMapUv ).rgb;
		#endif
		#ifdef USE_SPECULAR_INTENSITYMAP
			specularIntensityFactor *= texture2D( specularIntensityMap, vSpecularIntensityMapUv ).a;
		#endif
		material.specularF90 = mix( specularIntensityFactor, 1.0, metalnessFactor );
	#else
		float specularIntensityFactor = 1.0;
		vec3 specularColorFactor = vec3( 1.0 );
		material.specularF90 = 1.0;
	#endif
	material.specularColor = min( pow2( ( material.ior - 1.0 ) / ( material.ior + 1.0 ) ) * specularColorFactor, vec3( 1.0 ) ) * specularIntensityFactor;
	material.specularColorBlended = mix( material.specularColor, diffuseColor.rgb, metalnessFactor );
#else
	material.specularColor = vec3( 0.04 );
	material.specularColorBlended = mix( material.specularColor, diffuseColor.rgb, metalnessFactor );
	material.specularF90 = 1.0;
#endif
#ifdef USE_CLEARCOAT
	material.clearcoat = clearcoat;
	material.clearcoatRoughness = clearcoatRoughness;
	material.clearcoatF0 = vec3( 0.04 );
	material.clearcoatF90 = 1.0;
	#ifdef USE_CLEARCOATMAP
		material.clearcoat *= texture2D( clearcoatMap, vClearcoatMapUv ).x;
	#endif
	#ifdef USE_CLEARCOAT_ROUGHNESSMAP
		material.clearcoatRoughness *= texture2D( clearcoatRoughnessMap, vClearcoatRoughnessMapUv ).y;
	#endif
	material.clearcoat = saturate( material.clearcoat );	material.clearcoatRoughness = max( material.clearcoatRoughness, 0.045 );
	material.clearcoatRoughness += geometryRoughness;
	material.clearcoatRoughness = min( material.clearcoatRoughness, 1.0 );
#endif
#ifdef USE_DISPERSION
	material.dispersion = dispersion;
#endif
#ifdef USE_RETROREFLECTION
	material.retroreflectivity = retroreflectivity;
#endif
#ifdef USE_IRIDESCENCE
	material.iridescence = iridescence;
	material.iridescenceIOR = iridescenceIOR;
	#ifdef USE_IRIDESCENCEMAP
		material.iridescence *= texture2D( iridescenceMap, vIridescenceMapUv ).r;
	#endif
	#ifdef USE_IRIDESCENCE_THICKNESSMAP
		material.iridescenceThickness = (iridescenceThicknessMaximum - iridescenceThicknessMinimum) * texture2D( iridescenceThicknessMap, vIridescenceThicknessMapUv ).g + iridescenceThicknessMinimum;
	#else
		material.iridescenceThickness = iridescenceThicknessMaximum;
	#endif
#endif
#ifdef USE_SHEEN
	material.sheenColor = sheenColor;
	#ifdef USE_SHEEN_COLORMAP
		material.sheenColor *= texture2D( sheenColorMap, vSheenColorMapUv ).rgb;
	#endif
	material.sheenRoughness = clamp( sheenRoughness, 0.0001, 1.0 );
	#ifdef USE_SHEEN_ROUGHNESSMAP
		material.sheenRoughness *= texture2D( sheenRoughnessMap, vSheenRoughnessMapUv ).a;
	#endif
#endif
#ifdef USE_ANISOTROPY
	#ifdef USE_ANISOTROPYMAP
		mat2 anisotropyMat = mat2( anisotropyVector.x, anisotropyVector.y, - anisotropyVector.y, anisotropyVector.x );
		vec3 anisotropyPolar = texture2D( anisotropyMap, vAnisotropyMapUv ).rgb;
		vec2 anisotropyV = anisotropyMat * normalize( 2.0 * anisotropyPolar.rg - vec2( 1.0 ) ) * anisotropyPolar.b;
	#else
		vec2 anisotropyV = anisotropyVector;
	#endif
	material.anisotropy = length( anisotropyV );
	if( material.anisotropy == 0.0 ) {
		anisotropyV = vec2( 1.0, 0.0 );
	} else {
		anisotropyV /= material.anisotropy;
		material.anisotropy = saturate( material.anisotropy );
	}
	material.alphaT = mix( pow2( material.roughness ), 1.0, pow2( material.anisotropy ) );
	material.anisotropyT = tbn[ 0 ] * anisotropyV.x + tbn[ 1 ] * anisotropyV.y;
	material.anisotropyB = tbn[ 1 ] * anisotropyV.x - tbn[ 0 ] * anisotropyV.y;
#endif`,fv=`uniform sampler2D dfgLUT;
struct PhysicalMaterial {
	vec3 diffuseColor;
	vec3 diffuseContribution;
	vec3 specularColor;
	vec3 specularColorBlended;
	float roughness;
	float metalness;
	float specularF90;
	float dispersion;
	vec2 dfg;
	vec3 multiScatteringCompensation;
	#ifdef USE_DIFFUSE_ROUGHNESS
		float diffuseRoughness;
	#endif
	#ifdef USE_RETROREFLECTION
		float retroreflectivity;
	#endif
	#ifdef USE_CLEARCOAT
		float clearcoat;
		float clearcoatRoughness;
		vec3 clearcoatF0;
		float clearcoatF90;
	#endif
	#ifdef USE_IRIDESCENCE
		float iridescence;
		float iridescenceIOR;
		float iridescenceThickness;
		vec3 iridescenceFresnel;
		vec3 iridescenceF0Dielectric;
		vec3 iridescenceF0Metallic;
	#endif
	#ifdef USE_SHEEN
		vec3 sheenColor;
		float sheenRoughness;
	#endif
	#ifdef IOR
		float ior;
	#endif
	#ifdef USE_TRANSMISSION
		float transmission;
		float transmissionAlpha;
		float thickness;
		float attenuationDistance;
		vec3 attenuationColor;
	#endif
	#ifdef USE_ANISOTROPY
		float anisotropy;
		float alphaT;
		vec3 anisotropyT;
		vec3 anisotropyB;
	#endif
};
vec3 clearcoatSpecularDirect = vec3( 0.0 );
vec3 clearcoatSpecularIndirect = vec3( 0.0 );
vec3 sheenSpecularDirect = vec3( 0.0 );
vec3 sheenSpecularIndirect = vec3(0.0 );
vec3 Schlick_to_F0( const in vec3 f, const in float f90, const in float dotVH ) {
    float x = clamp( 1.0 - dotVH, 0.0, 1.0 );
    float x2 = x * x;
    float x5 = clamp( x * x2 * x2, 0.0, 0.9999 );
    return ( f - vec3( f90 ) * x5 ) / ( 1.0 - x5 );
}
#ifdef USE_DIFFUSE_ROUGHNESS
	const float EON_EPSILON = 1e-7;
	float FON_DirectionalAlbedo( const in float mu, const in float roughness, const in float A ) {
		float muComp = 1.0 - mu;
		float gOverPi = muComp * ( 0.0571085289 + muComp * ( 0.491881867 + muComp * ( - 0.332181442 + muComp * 0.0714429953 ) ) );
		return A * ( 1.0 + roughness * gOverPi );
	}
	vec3 BRDF_EON( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in vec3 diffuseColor, const in float roughness ) {
		vec3 rho = saturate( diffuseColor );
		if ( roughness <= EON_EPSILON ) return BRDF_Lambert( rho );
		float dotNL = saturate( dot( normal, lightDir ) );
		float dotNV = saturate( dot( normal, viewDir ) );
		float s = dot( lightDir, viewDir ) - dotNL * dotNV;
		float sOverT = ( s > 0.0 ) ? s / max( max( dotNL, dotNV ), EON_EPSILON ) : s;
		float A = 1.0 / ( 1.0 + ( 0.5 - 2.0 / ( 3.0 * PI ) ) * roughness );
		vec3 singleScatter = rho * RECIPROCAL_PI * A * ( 1.0 + roughness * sOverT );
		float averageAlbedo = A * ( 1.0 + ( 2.0 / 3.0 - 28.0 / ( 15.0 * PI ) ) * roughness );
		float albedoV = FON_DirectionalAlbedo( dotNV, roughness, A );
		float albedoL = FON_DirectionalAlbedo( dotNL, roughness, A );
		vec3 rhoMultiScatter = rho * rho * averageAlbedo / max( vec3( EON_EPSILON ), vec3( 1.0 ) - rho * ( 1.0 - averageAlbedo ) );
		vec3 multiScatter = rhoMultiScatter * RECIPROCAL_PI
			* max( EON_EPSILON, 1.0 - albedoV )
			* max( EON_EPSILON, 1.0 - albedoL )
			/ max( EON_EPSILON, 1.0 - averageAlbedo );
		return singleScatter + multiScatter;
	}
	vec3 EON_DirectionalAlbedo( const in vec3 diffuseColor, const in float roughness, const in float dotNV ) {
		vec3 rho = saturate( diffuseColor );
		if ( roughness <= EON_EPSILON ) return rho;
		float A = 1.0 / ( 1.0 + ( 0.5 - 2.0 / ( 3.0 * PI ) ) * roughness );
		float directionalAlbedo = FON_DirectionalAlbedo( dotNV, roughness, A );
		float averageAlbedo = A * ( 1.0 + ( 2.0 / 3.0 - 28.0 / ( 15.0 * PI ) ) * roughness );
		vec3 rhoMultiScatter = rho * rho * averageAlbedo / max( vec3( EON_EPSILON ), vec3( 1.0 ) - rho * ( 1.0 - averageAlbedo ) );
		return rho * directionalAlbedo + rhoMultiScatter * ( 1.0 - directionalAlbedo );
	}
#endif
float V_GGX_SmithCorrelated( const in float alpha, const in float dotNL, const in float dotNV ) {
	float a2 = pow2( alpha );
	float gv = dotNL * sqrt( a2 + ( 1.0 - a2 ) * pow2( dotNV ) );
	float gl = dotNV * sqrt( a2 + ( 1.0 - a2 ) * pow2( dotNL ) );
	return 0.5 / max( gv + gl, EPSILON );
}
float D_GGX( const in float alpha, const in float dotNH ) {
	float a2 = pow2( alpha );
	float denom = pow2( dotNH ) * ( a2 - 1.0 ) + 1.0;
	return RECIPROCAL_PI * a2 / pow2( denom );
}
#ifdef USE_ANISOTROPY
	float V_GGX_SmithCorrelated_Anisotropic( const in float alphaT, const in float alphaB, const in float dotTV, const in float dotBV, const in float dotTL, const in float dotBL, const in float dotNV, const in float dotNL ) {
		float gv = dotNL * length( vec3( alphaT * dotTV, alphaB * dotBV, dotNV ) );
		float gl = dotNV * length( vec3( alphaT * dotTL, alphaB * dotBL, dotNL ) );
		return 0.5 / max( gv + gl, EPSILON );
	}
	float D_GGX_Anisotropic( const in float alphaT, const in float alphaB, const in float dotNH, const in float dotTH, const in float dotBH ) {
		float a2 = alphaT * alphaB;
		highp vec3 v = vec3( alphaB * dotTH, alphaT * dotBH, a2 * dotNH );
		highp float v2 = dot( v, v );
		float w2 = a2 / v2;
		return RECIPROCAL_PI * a2 * pow2 ( w2 );
	}
#endif
#ifdef USE_CLEARCOAT
	vec3 BRDF_GGX_Clearcoat( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in PhysicalMaterial material) {
		vec3 f0 = material.clearcoatF0;
		float f90 = material.clearcoatF90;
		float roughness = max( material.clearcoatRoughness, 0.045 );
		float alpha = pow2( roughness );
		vec3 halfDir = normalize( lightDir + viewDir );
		float dotNL = saturate( dot( normal, lightDir ) );
		float dotNV = saturate( dot( normal, viewDir ) );
		float dotNH = saturate( dot( normal, halfDir ) );
		float dotVH = saturate( dot( viewDir, halfDir ) );
		vec3 F = F_Schlick( f0, f90, dotVH );
		float V = V_GGX_SmithCorrelated( alpha, dotNL, dotNV );
		float D = D_GGX( alpha, dotNH );
		return F * ( V * D );
	}
#endif
vec3 BRDF_GGX( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in PhysicalMaterial material ) {
	vec3 f0 = material.specularColorBlended;
	float f90 = material.specularF90;
	float roughness = max( material.roughness, 0.045 );
	float alpha = pow2( roughness );
	vec3 halfDir = normalize( lightDir + viewDir );
	float dotNL = saturate( dot( normal, lightDir ) );
	float dotNV = saturate( dot( normal, viewDir ) );
	float dotNH = saturate( dot( normal, halfDir ) );
	float dotVH = saturate( dot( viewDir, halfDir ) );
	vec3 F = F_Schlick( f0, f90, dotVH );
	#ifdef USE_IRIDESCENCE
		F = mix( F, material.iridescenceFresnel, material.iridescence );
	#endif
	#ifdef USE_ANISOTROPY
		float dotTL = dot( material.anisotropyT, lightDir );
		float dotTV = dot( material.anisotropyT, viewDir );
		float dotTH = dot( material.anisotropyT, halfDir );
		float dotBL = dot( material.anisotropyB, lightDir );
		float dotBV = dot( material.anisotropyB, viewDir );
		float dotBH = dot( material.anisotropyB, halfDir );
		float alphaT = max( material.alphaT, alpha );
		float V = V_GGX_SmithCorrelated_Anisotropic( alphaT, alpha, dotTV, dotBV, dotTL, dotBL, dotNV, dotNL );
		float D = D_GGX_Anisotropic( alphaT, alpha, dotNH, dotTH, dotBH );
	#else
		float V = V_GGX_SmithCorrelated( alpha, dotNL, dotNV );
		float D = D_GGX( alpha, dotNH );
	#endif
	return F * ( V * D );
}
vec2 LTC_Uv( const in vec3 N, const in vec3 V, const in float roughness ) {
	const float LUT_SIZE = 64.0;
	const float LUT_SCALE = ( LUT_SIZE - 1.0 ) / LUT_SIZE;
	const float LUT_BIAS = 0.5 / LUT_SIZE;
	float dotNV = saturate( dot( N, V ) );
	vec2 uv = vec2( roughness, sqrt( 1.0 - dotNV ) );
	uv = uv * LUT_SCALE + LUT_BIAS;
	return uv;
}
float LTC_ClippedSphereFormFactor( const in vec3 f ) {
	float l = length( f );
	return max( ( l * l + f.z ) / ( l + 1.0 ), 0.0 );
}
vec3 LTC_EdgeVectorFormFactor( const in vec3 v1, const in vec3 v2 ) {
	float x = dot( v1, v2 );
	float y = abs( x );
	float a = 0.8543985 + ( 0.4965155 + 0.0145206 * y ) * y;
	float b = 3.4175940 + ( 4.1616724 + y ) * y;
	float v = a / b;
	float theta_sintheta = ( x > 0.0 ) ? v : 0.5 * inversesqrt( max( 1.0 - x * x, 1e-7 ) ) - v;
	return cross( v1, v2 ) * theta_sintheta;
}
vec3 LTC_Evaluate( const in vec3 N, const in vec3 V, const in vec3 P, const in mat3 mInv, const in vec3 rectCoords[ 4 ] ) {
	vec3 v1 = rectCoords[ 1 ] - rectCoords[ 0 ];
	vec3 v2 = rectCoords[ 3 ] - rectCoords[ 0 ];
	vec3 lightNormal = cross( v1, v2 );
	if( dot( lightNormal, P - rectCoords[ 0 ] ) < 0.0 ) return vec3( 0.0 );
	vec3 T1, T2;
	T1 = normalize( V - N * dot( V, N ) );
	T2 = - cross( N, T1 );
	mat3 mat = mInv * transpose( mat3( T1, T2, N ) );
	vec3 coords[ 4 ];
	coords[ 0 ] = mat * ( rectCoords[ 0 ] - P );
	coords[ 1 ] = mat * ( rectCoords[ 1 ] - P );
	coords[ 2 ] = mat * ( rectCoords[ 2 ] - P );
	coords[ 3 ] = mat * ( rectCoords[ 3 ] - P );
	coords[ 0 ] = normalize( coords[ 0 ] );
	coords[ 1 ] = normalize( coords[ 1 ] );
	coords[ 2 ] = normalize( coords[ 2 ] );
	coords[ 3 ] = normalize( coords[ 3 ] );
	vec3 vectorFormFactor = vec3( 0.0 );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 0 ], coords[ 1 ] );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 1 ], coords[ 2 ] );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 2 ], coords[ 3 ] );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 3 ], coords[ 0 ] );
	float result = LTC_ClippedSphereFormFactor( vectorFormFactor );
	return vec3( result );
}
#if defined( USE_SHEEN )
float D_Charlie( float roughness, float dotNH ) {
	float alpha = pow2( roughness );
	float invAlpha = 1.0 / alpha;
	float cos2h = dotNH * dotNH;
	float sin2h = max( 1.0 - cos2h, 0.0078125 );
	return ( 2.0 + invAlpha ) * pow( sin2h, invAlpha * 0.5 ) / ( 2.0 * PI );
}
float V_Neubelt( float dotNV, float dotNL ) {
	return saturate( 1.0 / ( 4.0 * ( dotNL + dotNV - dotNL * dotNV ) ) );
}
vec3 BRDF_Sheen( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, vec3 sheenColor, const in float sheenRoughness ) {
	vec3 halfDir = normalize( lightDir + viewDir );
	float dotNL = saturate( dot( normal, lightDir ) );
	float dotNV = saturate( dot( normal, viewDir ) );
	float dotNH = saturate( dot( normal, halfDir ) );
	float D = D_Charlie( sheenRoughness, dotNH );
	float V = V_Neubelt( dotNV, dotNL );
	return sheenColor * ( D * V );
}
#endif
float IBLSheenBRDF( const in vec3 normal, const in vec3 viewDir, const in float roughness ) {
	float dotNV = saturate( dot( normal, viewDir ) );
	float r2 = roughness * roughness;
	float rInv = 1.0 / ( roughness + 0.1 );
	float a = -1.9362 + 1.0678 * roughness + 0.4573 * r2 - 0.8469 * rInv;
	float b = -0.6014 + 0.5538 * roughness - 0.4670 * r2 - 0.1255 * rInv;
	float DG = exp( a * dotNV + b );
	return saturate( DG );
}
vec3 EnvironmentBRDF( const in vec3 normal, const in vec3 viewDir, const in vec3 specularColor, const in float specularF90, const in float roughness ) {
	float dotNV = saturate( dot( normal, viewDir ) );
	vec2 fab = texture2D( dfgLUT, vec2( roughness, dotNV ) ).rg;
	return specularColor * fab.x + specularF90 * fab.y;
}
#ifdef USE_IRIDESCENCE
void computeMultiscatteringIridescence( const in vec2 fab, const in vec3 specularColor, const in float specularF90, const in float iridescence, const in vec3 iridescenceF0, inout vec3 singleScatter, inout vec3 multiScatter ) {
#else
void computeMultiscattering( const in vec2 fab, const in vec3 specularColor, const in float specularF90, inout vec3 singleScatter, inout vec3 multiScatter ) {
#endif
	#ifdef USE_IRIDESCENCE
		vec3 Fr = mix( specularColor, iridescenceF0, iridescence );
	#else
		vec3 Fr = specularColor;
	#endif
	vec3 FssEss = Fr * fab.x + specularF90 * fab.y;
	float Ess = fab.x + fab.y;
	float Ems = 1.0 - Ess;
	vec3 Favg = Fr + ( 1.0 - Fr ) * 0.047619;	vec3 Fms = FssEss * Favg / ( 1.0 - Ems * Favg );
	singleScatter += FssEss;
	multiScatter += Fms * Ems;
}
#if NUM_RECT_AREA_LIGHTS > 0
	void RE_Direct_RectArea_Physical( const in RectAreaLight rectAreaLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight ) {
		vec3 normal = geometryNormal;
		vec3 viewDir = geometryViewDir;
		vec3 position = geometryPosition;
		vec3 lightPos = rectAreaLight.position;
		vec3 halfWidth = rectAreaLight.halfWidth;
		vec3 halfHeight = rectAreaLight.halfHeight;
		vec3 lightColor = rectAreaLight.color;
		float roughness = material.roughness;
		vec3 rectCoords[ 4 ];
		rectCoords[ 0 ] = lightPos + halfWidth - halfHeight;		rectCoords[ 1 ] = lightPos - halfWidth - halfHeight;
		rectCoords[ 2 ] = lightPos - halfWidth + halfHeight;
		rectCoords[ 3 ] = lightPos + halfWidth + halfHeight;
		vec2 uv = LTC_Uv( normal, viewDir, roughness );
		vec4 t1 = texture2D( ltc_1, uv );
		vec4 t2 = texture2D( ltc_2, uv );
		mat3 mInv = mat3(
			vec3( t1.x, 0, t1.y ),
			vec3(    0, 1,    0 ),
			vec3( t1.z, 0, t1.w )
		);
		vec3 fresnel = ( material.specularColorBlended * t2.x + ( material.specularF90 - material.specularColorBlended ) * t2.y );
		reflectedLight.directSpecular += lightColor * fresnel * LTC_Evaluate( normal, viewDir, position, mInv, rectCoords );
		reflectedLight.directDiffuse += lightColor * material.diffuseContribution * LTC_Evaluate( normal, viewDir, position, mat3( 1.0 ), rectCoords );
		#ifdef USE_CLEARCOAT
			vec3 Ncc = geometryClearcoatNormal;
			vec2 uvClearcoat = LTC_Uv( Ncc, viewDir, material.clearcoatRoughness );
			vec4 t1Clearcoat = texture2D( ltc_1, uvClearcoat );
			vec4 t2Clearcoat = texture2D( ltc_2, uvClearcoat );
			mat3 mInvClearcoat = mat3(
				vec3( t1Clearcoat.x, 0, t1Clearcoat.y ),
				vec3(             0, 1,             0 ),
				vec3( t1Clearcoat.z, 0, t1Clearcoat.w )
			);
			vec3 fresnelClearcoat = material.clearcoatF0 * t2Clearcoat.x + ( material.clearcoatF90 - material.clearcoatF0 ) * t2Clearcoat.y;
			clearcoatSpecularDirect += lightColor * fresnelClearcoat * LTC_Evaluate( Ncc, viewDir, position, mInvClearcoat, rectCoords );
		#endif
	}
#endif
void RE_Direct_Physical( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight ) {
	float dotNL = saturate( dot( geometryNormal, directLight.direction ) );
	vec3 irradiance = dotNL * directLight.color;
	#ifdef USE_CLEARCOAT
		float dotNLcc = saturate( dot( geometryClearcoatNormal, directLight.direction ) );
		vec3 ccIrradiance = dotNLcc * directLight.color;
		clearcoatSpecularDirect += ccIrradiance * BRDF_GGX_Clearcoat( directLight.direction, geometryViewDir, geometryClearcoatNormal, material );
	#endif
	#ifdef USE_SHEEN
 
 		sheenSpecularDirect += irradiance * BRDF_Sheen( directLight.direction, geometryViewDir, geometryNormal, material.sheenColor, material.sheenRoughness );
 
 		float sheenAlbedoV = IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness );
 		float sheenAlbedoL = IBLSheenBRDF( geometryNormal, directLight.direction, material.sheenRoughness );
 
 		float sheenEnergyComp = 1.0 - max3( material.sheenColor ) * max( sheenAlbedoV, sheenAlbedoL );
 
 		irradiance *= sheenEnergyComp;
 
 	#endif
	vec3 specularBRDF = BRDF_GGX( directLight.direction, geometryViewDir, geometryNormal, material );
	#ifdef USE_RETROREFLECTION
		vec3 retroViewDir = reflect( - geometryViewDir, geometryNormal );
		vec3 retroSpecularBRDF = BRDF_GGX( directLight.direction, retroViewDir, geometryNormal, material );
		specularBRDF = mix( specularBRDF, retroSpecularBRDF, saturate( material.retroreflectivity ) );
	#endif
	reflectedLight.directSpecular += irradiance * specularBRDF * material.multiScatteringCompensation;
	vec3 halfDir = normalize( directLight.direction + geometryViewDir );
	float dotVH = saturate( dot( geometryViewDir, halfDir ) );
	vec3 F = F_Schlick( material.specularColor, material.specularF90, dotVH );
	#ifdef USE_RETROREFLECTION
		vec3 retroHalfDir = normalize( directLight.direction + retroViewDir );
		float dotRetroVH = saturate( dot( retroViewDir, retroHalfDir ) );
		vec3 retroF = F_Schlick( material.specularColor, material.specularF90, dotRetroVH );
		F = mix( F, retroF, saturate( material.retroreflectivity ) );
	#endif
	#ifdef USE_DIFFUSE_ROUGHNESS
		vec3 diffuseBRDF = BRDF_EON( directLight.direction, geometryViewDir, geometryNormal, material.diffuseColor, material.diffuseRoughness ) * ( 1.0 - material.metalness );
	#else
		vec3 diffuseBRDF = BRDF_Lambert( material.diffuseContribution );
	#endif
	reflectedLight.directDiffuse += irradiance * diffuseBRDF * ( 1.0 - F );
}
void RE_IndirectDiffuse_Physical( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight ) {
	vec3 singleScattering = vec3( 0.0 );
	vec3 multiScattering = vec3( 0.0 );
	#ifdef USE_IRIDESCENCE
		computeMultiscatteringIridescence( material.dfg, material.specularColor, material.specularF90, material.iridescence, material.iridescenceF0Dielectric, singleScattering, multiScattering );
	#else
		computeMultiscattering( material.dfg, material.specularColor, material.specularF90, singleScattering, multiScattering );
	#endif
	#ifdef USE_DIFFUSE_ROUGHNESS
		float dotNV = saturate( dot( geometryNormal, geometryViewDir ) );
		vec3 diffuseAlbedo = EON_DirectionalAlbedo( material.diffuseColor, material.diffuseRoughness, dotNV ) * ( 1.0 - material.metalness );
		vec3 diffuse = irradiance * RECIPROCAL_PI * diffuseAlbedo * ( 1.0 - singleScattering - multiScattering );
	#else
		vec3 diffuse = irradiance * BRDF_Lambert( material.diffuseContribution ) * ( 1.0 - singleScattering - multiScattering );
	#endif
	#ifdef USE_SHEEN
		float sheenAlbedo = IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness );
		sheenSpecularIndirect += irradiance * material.sheenColor * sheenAlbedo * RECIPROCAL_PI;
		float sheenEnergyComp = 1.0 - max3( material.sheenColor ) * sheenAlbedo;
		diffuse *= sheenEnergyComp;
	#endif
	reflectedLight.indirectDiffuse += diffuse;
}
void RE_IndirectSpecular_Physical( const in vec3 radiance, const in vec3 irradiance, const in vec3 clearcoatRadiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight) {
	#ifdef USE_CLEARCOAT
		clearcoatSpecularIndirect += clearcoatRadiance * EnvironmentBRDF( geometryClearcoatNormal, geometryViewDir, material.clearcoatF0, material.clearcoatF90, material.clearcoatRoughness );
	#endif
	#ifdef USE_SHEEN
		sheenSpecularIndirect += irradiance * material.sheenColor * IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness ) * RECIPROCAL_PI;
 	#endif
	vec3 singleScatteringDielectric = vec3( 0.0 );
	vec3 multiScatteringDielectric = vec3( 0.0 );
	vec3 singleScatteringMetallic = vec3( 0.0 );
	vec3 multiScatteringMetallic = vec3( 0.0 );
	#ifdef USE_IRIDESCENCE
		computeMultiscatteringIridescence( material.dfg, material.specularColor, material.specularF90, material.iridescence, material.iridescenceF0Dielectric, singleScatteringDielectric, multiScatteringDielectric );
		computeMultiscatteringIridescence( material.dfg, material.diffuseColor, material.specularF90, material.iridescence, material.iridescenceF0Metallic, singleScatteringMetallic, multiScatteringMetallic );
	#else
		computeMultiscattering( material.dfg, material.specularColor, material.specularF90, singleScatteringDielectric, multiScatteringDielectric );
		computeMultiscattering( material.dfg, material.diffuseColor, material.specularF90, singleScatteringMetallic, multiScatteringMetallic );
	#endif
	vec3 singleScattering = mix( singleScatteringDielectric, singleScatteringMetallic, material.metalness );
	vec3 multiScattering = mix( multiScatteringDielectric, multiScatteringMetallic, material.metalness );
	vec3 totalScatteringDielectric = singleScatteringDielectric + multiScatteringDielectric;
	#ifdef USE_DIFFUSE_ROUGHNESS
		float dotNV = saturate( dot( geometryNormal, geometryViewDir ) );
		vec3 diffuse = EON_DirectionalAlbedo( material.diffuseColor, material.diffuseRoughness, dotNV ) * ( 1.0 - material.metalness ) * ( 1.0 - totalScatteringDielectric );
	#else
		vec3 diffuse = material.diffuseContribution * ( 1.0 - totalScatteringDielectric );
	#endif
	vec3 cosineWeightedIrradiance = irradiance * RECIPROCAL_PI;
	vec3 indirectSpecular = radiance * singleScattering;
	indirectSpecular += multiScattering * cosineWeightedIrradiance;
	vec3 indirectDiffuse = diffuse * cosineWeightedIrradiance;
	#ifdef USE_SHEEN
		float sheenAlbedo = IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness );
		float sheenEnergyComp = 1.0 - max3( material.sheenColor ) * sheenAlbedo;
		indirectSpecular *= sheenEnergyComp;
		indirectDiffuse *= sheenEnergyComp;
	#endif
	reflectedLight.indirectSpecular += indirectSpecular;
	reflectedLight.indirectDiffuse += indirectDiffuse;
}
#define RE_Direct				RE_Direct_Physical
#define RE_Direct_RectArea		RE_Direct_RectArea_Physical
#define RE_IndirectDiffuse		RE_IndirectDiffuse_Physical
#define RE_IndirectSpecular		RE_IndirectSpecular_Physical
float computeSpecularOcclusion( const in float dotNV, const in float ambientOcclusion, const in float roughness ) {
	return saturate( pow( dotNV + ambientOcclusion, exp2( - 16.0 * roughness - 1.0 ) ) - 1.0 + ambientOcclusion );
}`,hv=`
vec3 geometryPosition = - vViewPosition;
vec3 geometryNormal = normal;
vec3 geometryViewDir = ( isOrthographic ) ? vec3( 0, 0, 1 ) : normalize( vViewPosition );
vec3 geometryClearcoatNormal = vec3( 0.0 );
#ifdef USE_CLEARCOAT
	geometryClearcoatNormal = clearcoatNormal;
#endif
#ifdef USE_IRIDESCENCE
	float dotNVi = saturate( dot( normal, geometryViewDir ) );
	if ( material.iridescenceThickness == 0.0 ) {
		material.iridescence = 0.0;
	} else {
		material.iridescence = saturate( material.iridescence );
	}
	if ( material.iridescence > 0.0 ) {
		vec3 iridescenceFresnelDielectric = evalIridescence( 1.0, material.iridescenceIOR, dotNVi, material.iridescenceThickness, material.specularColor );
		vec3 iridescenceFresnelMetallic = evalIridescence( 1.0, material.iridescenceIOR, dotNVi, material.iridescenceThickness, material.diffuseColor );
		material.iridescenceFresnel = mix( iridescenceFresnelDielectric, iridescenceFresnelMetallic, material.metalness );
		material.iridescenceF0Dielectric = Schlick_to_F0( iridescenceFresnelDielectric, 1.0, dotNVi );
		material.iridescenceF0Metallic = Schlick_to_F0( iridescenceFresnelMetallic, 1.0, dotNVi );
	}
#endif
#ifdef STANDARD
	float dotNVms = saturate( dot( geometryNormal, geometryViewDir ) );
	material.dfg = texture2D( dfgLUT, vec2( material.roughness, dotNVms ) ).rg;
	#if ( NUM_SUN_LIGHTS > 0 || NUM_DIR_LIGHTS > 0 || NUM_POINT_LIGHTS > 0 || NUM_SPOT_LIGHTS > 0 )
		float EssMs = material.dfg.x + material.dfg.y;
		material.multiScatteringCompensation = 1.0 + material.specularColorBlended * ( 1.0 / EssMs - 1.0 );
	#endif
#endif
IncidentLight directLight;
#if ( NUM_POINT_LIGHTS > 0 ) && defined( RE_Direct )
	PointLight pointLight;
	#if defined( USE_SHADOWMAP ) && NUM_POINT_LIGHT_SHADOWS > 0
	PointLightShadow pointLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_POINT_LIGHTS; i ++ ) {
		pointLight = pointLights[ i ];
		getPointLightInfo( pointLight, geometryPosition, directLight );
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_POINT_LIGHT_SHADOWS ) && ( defined( SHADOWMAP_TYPE_PCF ) || defined( SHADOWMAP_TYPE_BASIC ) )
		pointLightShadow = pointLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getPointShadow( pointShadowMap[ i ], pointLightShadow.shadowMapSize, pointLightShadow.shadowIntensity, pointLightShadow.shadowBias, pointLightShadow.shadowRadius, vPointShadowCoord[ i ], pointLightShadow.shadowCameraNear, pointLightShadow.shadowCameraFar ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_SPOT_LIGHTS > 0 ) && defined( RE_Direct )
	SpotLight spotLight;
	vec4 spotColor;
	vec3 spotLightCoord;
	bool inSpotLightMap;
	#if defined( USE_SHADOWMAP ) && NUM_SPOT_LIGHT_SHADOWS > 0
	SpotLightShadow spotLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SPOT_LIGHTS; i ++ ) {
		spotLight = spotLights[ i ];
		getSpotLightInfo( spotLight, geometryPosition, directLight );
		#if ( UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS_WITH_MAPS )
		#define SPOT_LIGHT_MAP_INDEX UNROLLED_LOOP_INDEX
		#elif ( UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS )
		#define SPOT_LIGHT_MAP_INDEX NUM_SPOT_LIGHT_MAPS
		#else
		#define SPOT_LIGHT_MAP_INDEX ( UNROLLED_LOOP_INDEX - NUM_SPOT_LIGHT_SHADOWS + NUM_SPOT_LIGHT_SHADOWS_WITH_MAPS )
		#endif
		#if ( SPOT_LIGHT_MAP_INDEX < NUM_SPOT_LIGHT_MAPS )
			spotLightCoord = vSpotLightCoord[ i ].xyz / vSpotLightCoord[ i ].w;
			inSpotLightMap = all( lessThan( abs( spotLightCoord * 2. - 1. ), vec3( 1.0 ) ) );
			spotColor = texture2D( spotLightMap[ SPOT_LIGHT_MAP_INDEX ], spotLightCoord.xy );
			directLight.color = inSpotLightMap ? directLight.color * spotColor.rgb : directLight.color;
		#endif
		#undef SPOT_LIGHT_MAP_INDEX
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS )
		spotLightShadow = spotLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getShadow( spotShadowMap[ i ], spotLightShadow.shadowMapSize, spotLightShadow.shadowIntensity, spotLightShadow.shadowBias, spotLightShadow.shadowRadius, vSpotLightCoord[ i ] ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_SUN_LIGHTS > 0 ) && defined( RE_Direct )
	SunLight sunLight;
	#if defined( USE_SHADOWMAP ) && NUM_SUN_LIGHT_SHADOWS > 0
	SunLightShadow sunLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SUN_LIGHTS; i ++ ) {
		sunLight = sunLights[ i ];
		getSunLightInfo( sunLight, directLight );
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_SUN_LIGHT_SHADOWS )
		sunLightShadow = sunLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getSunShadow( sunShadowMap[ i ], sunLightShadow, UNROLLED_LOOP_INDEX ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_DIR_LIGHTS > 0 ) && defined( RE_Direct )
	DirectionalLight directionalLight;
	#if defined( USE_SHADOWMAP ) && NUM_DIR_LIGHT_SHADOWS > 0
	DirectionalLightShadow directionalLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_DIR_LIGHTS; i ++ ) {
		directionalLight = directionalLights[ i ];
		getDirectionalLightInfo( directionalLight, directLight );
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_DIR_LIGHT_SHADOWS )
		directionalLightShadow = directionalLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getShadow( directionalShadowMap[ i ], directionalLightShadow.shadowMapSize, directionalLightShadow.shadowIntensity, directionalLightShadow.shadowBias, directionalLightShadow.shadowRadius, vDirectionalShadowCoord[ i ] ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_RECT_AREA_LIGHTS > 0 ) && defined( RE_Direct_RectArea )
	RectAreaLight rectAreaLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_RECT_AREA_LIGHTS; i ++ ) {
		rectAreaLight = rectAreaLights[ i ];
		RE_Direct_RectArea( rectAreaLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if defined( RE_IndirectDiffuse )
	vec3 iblIrradiance = vec3( 0.0 );
	vec3 irradiance = getAmbientLightIrradiance( ambientLightColor );
	#if defined( USE_LIGHT_PROBES )
		irradiance += getLightProbeIrradiance( lightProbe, geometryNormal );
	#endif
	#if ( NUM_HEMI_LIGHTS > 0 )
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_HEMI_LIGHTS; i ++ ) {
			irradiance += getHemisphereLightIrradiance( hemisphereLights[ i ], geometryNormal );
		}
		#pragma unroll_loop_end
	#endif
	#if NUM_LIGHT_PROBE_GRIDS > 0
		vec3 probeWorldPos = ( ( vec4( geometryPosition, 1.0 ) - viewMatrix[ 3 ] ) * viewMatrix ).xyz;
		vec3 probeWorldNormal = transformNormalByInverseViewMatrix( geometryNormal, viewMatrix );
		int probeGrid = - 1;
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_LIGHT_PROBE_GRIDS; i ++ ) {
			if ( isInsideLightProbeGrid( probeWorldPos, probeWorldNormal, probesMin[ i ], probesMax[ i ], probesResolution[ i ] ) ) probeGrid = UNROLLED_LOOP_INDEX;
		}
		#pragma unroll_loop_end
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_LIGHT_PROBE_GRIDS; i ++ ) {
			if ( probeGrid == UNROLLED_LOOP_INDEX ) irradiance += getLightProbeGridIrradiance( probesSH[ i ], probesMin[ i ], probesMax[ i ], probesResolution[ i ], probeWorldPos, probeWorldNormal );
		}
		#pragma unroll_loop_end
	#endif
#endif
#if defined( RE_IndirectSpecular )
	vec3 radiance = vec3( 0.0 );
	vec3 clearcoatRadiance = vec3( 0.0 );
#endif`,dv=`#if defined( RE_IndirectDiffuse )
	#ifdef USE_LIGHTMAP
		vec4 lightMapTexel = texture2D( lightMap, vLightMapUv );
		vec3 lightMapIrradiance = lightMapTexel.rgb * lightMapIntensity;
		irradiance += lightMapIrradiance;
	#endif
	#if defined( USE_ENVMAP ) && defined( ENVMAP_TYPE_PMREM )
		#if defined( STANDARD ) || defined( LAMBERT ) || defined( PHONG )
			iblIrradiance += getIBLIrradiance( geometryNormal );
		#endif
	#endif
#endif
#if defined( USE_ENVMAP ) && defined( RE_IndirectSpecular )
	#ifdef USE_ANISOTROPY
		vec3 iblRadiance = getIBLAnisotropyRadiance( geometryViewDir, geometryNormal, material.roughness, material.anisotropyB, material.anisotropy );
	#else
		vec3 iblRadiance = getIBLRadiance( geometryViewDir, geometryNormal, material.roughness );
	#endif
	#ifdef USE_RETROREFLECTION
		#ifdef USE_ANISOTROPY
			vec3 retroIBLRadiance = getIBLAnisotropyRetroRadiance( geometryViewDir, geometryNormal, material.roughness, material.anisotropyB, material.anisotropy );
		#else
			vec3 retroIBLRadiance = getIBLRetroRadiance( geometryViewDir, geometryNormal, material.roughness );
		#endif
		iblRadiance = mix( iblRadiance, retroIBLRadiance, saturate( material.retroreflectivity ) );
	#endif
	radiance += iblRadiance;
	#ifdef USE_CLEARCOAT
		clearcoatRadiance += getIBLRadiance( geometryViewDir, geometryClearcoatNormal, material.clearcoatRoughness );
	#endif
#endif`,pv=`#if defined( RE_IndirectDiffuse )
	#if defined( LAMBERT ) || defined( PHONG )
		irradiance += iblIrradiance;
	#endif
	RE_IndirectDiffuse( irradiance, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
#endif
#if defined( RE_IndirectSpecular )
	RE_IndirectSpecular( radiance, iblIrradiance, clearcoatRadiance, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
#endif`,mv=`#if NUM_LIGHT_PROBE_GRIDS > 0
uniform highp sampler3D probesSH[ NUM_LIGHT_PROBE_GRIDS ];
uniform vec3 probesMin[ NUM_LIGHT_PROBE_GRIDS ];
uniform vec3 probesMax[ NUM_LIGHT_PROBE_GRIDS ];
uniform vec3 probesResolution[ NUM_LIGHT_PROBE_GRIDS ];
bool isInsideLightProbeGrid( vec3 worldPos, vec3 worldNormal, vec3 probesMin, vec3 probesMax, vec3 probesResolution ) {
	vec3 spacing = ( probesMax - probesMin ) / probesResolution;
	vec3 samplePos = worldPos + worldNormal * spacing * 0.5;
	vec3 margin = spacing * 0.01;
	return all( greaterThanEqual( samplePos, probesMin - margin ) ) && all( lessThanEqual( samplePos, probesMax + margin ) );
}
vec3 getLightProbeGridIrradiance( highp sampler3D probesSH, vec3 probesMin, vec3 probesMax, vec3 probesResolution, vec3 worldPos, vec3 worldNormal ) {
	vec3 res = probesResolution;
	vec3 gridRange = probesMax - probesMin;
	vec3 probeSpacing = gridRange / res;
	vec3 samplePos = worldPos + worldNormal * probeSpacing * 0.5;
	vec3 uvw = clamp( ( samplePos - probesMin ) / gridRange, 0.5 / res, 1.0 - 0.5 / res );
	float nz          = res.z;
	float paddedSlices = nz + 2.0;
	float atlasDepth  = 7.0 * paddedSlices;
	float uvZBase     = uvw.z * nz + 1.0;
	vec4 s0 = texture( probesSH, vec3( uvw.xy, ( uvZBase                       ) / atlasDepth ) );
	vec4 s1 = texture( probesSH, vec3( uvw.xy, ( uvZBase +       paddedSlices   ) / atlasDepth ) );
	vec4 s2 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 2.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s3 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 3.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s4 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 4.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s5 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 5.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s6 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 6.0 * paddedSlices   ) / atlasDepth ) );
	vec3 c0 = s0.xyz;
	vec3 c1 = vec3( s0.w, s1.xy );
	vec3 c2 = vec3( s1.zw, s2.x );
	vec3 c3 = s2.yzw;
	vec3 c4 = s3.xyz;
	vec3 c5 = vec3( s3.w, s4.xy );
	vec3 c6 = vec3( s4.zw, s5.x );
	vec3 c7 = s5.yzw;
	vec3 c8 = s6.xyz;
	float x = worldNormal.x, y = worldNormal.y, z = worldNormal.z;
	vec3 result = c0 * 0.886227;
	result += c1 * 2.0 * 0.511664 * y;
	result += c2 * 2.0 * 0.511664 * z;
	result += c3 * 2.0 * 0.511664 * x;
	result += c4 * 2.0 * 0.429043 * x * y;
	result += c5 * 2.0 * 0.429043 * y * z;
	result += c6 * ( 0.743125 * z * z - 0.247708 );
	result += c7 * 2.0 * 0.429043 * x * z;
	result += c8 * 0.429043 * ( x * x - y * y );
	return max( result, vec3( 0.0 ) );
}
#endif`,gv=`#if defined( USE_LOGARITHMIC_DEPTH_BUFFER )
	gl_FragDepth = vIsPerspective == 0.0 ? gl_FragCoord.z : log2( vFragDepth ) * logDepthBufFC * 0.5;
#endif`,_v=`#if defined( USE_LOGARITHMIC_DEPTH_BUFFER )
	uniform float logDepthBufFC;
	varying float vFragDepth;
	varying float vIsPerspective;
#endif`,vv=`#ifdef USE_LOGARITHMIC_DEPTH_BUFFER
	varying float vFragDepth;
	varying float vIsPerspective;
#endif`,xv=`#ifdef USE_LOGARITHMIC_DEPTH_BUFFER
	vFragDepth = 1.0 + gl_Position.w;
	vIsPerspective = float( isPerspectiveMatrix( projectionMatrix ) );
#endif`,Sv=`#ifdef USE_MAP
	vec4 sampledDiffuseColor = texture2D( map, vMapUv );
	#ifdef DECODE_VIDEO_TEXTURE
		sampledDiffuseColor = sRGBTransferEOTF( sampledDiffuseColor );
	#endif
	diffuseColor *= sampledDiffuseColor;
#endif`,Mv=`#ifdef USE_MAP
	uniform sampler2D map;
#endif`,yv=`#if defined( USE_MAP ) || defined( USE_ALPHAMAP )
	#if defined( USE_POINTS_UV )
		vec2 uv = vUv;
	#else
		vec2 uv = ( uvTransform * vec3( gl_PointCoord.x, 1.0 - gl_PointCoord.y, 1 ) ).xy;
	#endif
#endif
#ifdef USE_MAP
	diffuseColor *= texture2D( map, uv );
#endif
#ifdef USE_ALPHAMAP
	diffuseColor.a *= texture2D( alphaMap, uv ).g;
#endif`,Ev=`#if defined( USE_POINTS_UV )
	varying vec2 vUv;
#else
	#if defined( USE_MAP ) || defined( USE_ALPHAMAP )
		uniform mat3 uvTransform;
	#endif
#endif
#ifdef USE_MAP
	uniform sampler2D map;
#endif
#ifdef USE_ALPHAMAP
	uniform sampler2D alphaMap;
#endif`,Tv=`float metalnessFactor = metalness;
#ifdef USE_METALNESSMAP
	vec4 texelMetalness = texture2D( metalnessMap, vMetalnessMapUv );
	metalnessFactor *= texelMetalness.b;
#endif`,bv=`#ifdef USE_METALNESSMAP
	uniform sampler2D metalnessMap;
#endif`,wv=`#ifdef USE_INSTANCING_MORPH
	float morphTargetInfluences[ MORPHTARGETS_COUNT ];
	float morphTargetBaseInfluence = texelFetch( morphTexture, ivec2( 0, gl_InstanceID ), 0 ).r;
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		morphTargetInfluences[i] =  texelFetch( morphTexture, ivec2( i + 1, gl_InstanceID ), 0 ).r;
	}
#endif`,Av=`#if defined( USE_MORPHCOLORS )
	#if defined( USE_COLOR_ALPHA )
		vColor *= morphTargetBaseInfluence;
	#elif defined( USE_COLOR )
		vColor.rgb *= morphTargetBaseInfluence;
	#endif
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		#if defined( USE_COLOR_ALPHA )
			if ( morphTargetInfluences[ i ] != 0.0 ) vColor += getMorph( gl_VertexID, i, 2 ) * morphTargetInfluences[ i ];
		#elif defined( USE_COLOR )
			if ( morphTargetInfluences[ i ] != 0.0 ) vColor.rgb += getMorph( gl_VertexID, i, 2 ).rgb * morphTargetInfluences[ i ];
		#endif
	}
#endif`,Rv=`#ifdef USE_MORPHNORMALS
	objectNormal *= morphTargetBaseInfluence;
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		if ( morphTargetInfluences[ i ] != 0.0 ) objectNormal += getMorph( gl_VertexID, i, 1 ).xyz * morphTargetInfluences[ i ];
	}
#endif`,Cv=`#ifdef USE_MORPHTARGETS
	#ifndef USE_INSTANCING_MORPH
		uniform float morphTargetBaseInfluence;
		uniform float morphTargetInfluences[ MORPHTARGETS_COUNT ];
	#endif
	uniform sampler2DArray morphTargetsTexture;
	uniform ivec2 morphTargetsTextureSize;
	vec4 getMorph( const in int vertexIndex, const in int morphTargetIndex, const in int offset ) {
		int texelIndex = vertexIndex * MORPHTARGETS_TEXTURE_STRIDE + offset;
		int y = texelIndex / morphTargetsTextureSize.x;
		int x = texelIndex - y * morphTargetsTextureSize.x;
		ivec3 morphUV = ivec3( x, y, morphTargetIndex );
		return texelFetch( morphTargetsTexture, morphUV, 0 );
	}
#endif`,Pv=`#ifdef USE_MORPHTARGETS
	transformed *= morphTargetBaseInfluence;
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		if ( morphTargetInfluences[ i ] != 0.0 ) transformed += getMorph( gl_VertexID, i, 0 ).xyz * morphTargetInfluences[ i ];
	}
#endif`,Lv=`float faceDirection = gl_FrontFacing ? 1.0 : - 1.0;
#ifdef FLAT_SHADED
	vec3 fdx = dFdx( vViewPosition );
	vec3 fdy = dFdy( vViewPosition );
	vec3 normal = normalize( cross( fdx, fdy ) );
#else
	vec3 normal = normalize( vNormal );
	#ifdef DOUBLE_SIDED
		normal *= faceDirection;
	#endif
#endif
#if defined( USE_NORMALMAP_TANGENTSPACE ) || defined( USE_CLEARCOAT_NORMALMAP ) || defined( USE_ANISOTROPY )
	#ifdef USE_TANGENT
		mat3 tbn = mat3( normalize( vTangent ), normalize( vBitangent ), normal );
	#else
		mat3 tbn = getTangentFrame( - vViewPosition, normal,
		#if defined( USE_NORMALMAP )
			vNormalMapUv
		#elif defined( USE_CLEARCOAT_NORMALMAP )
			vClearcoatNormalMapUv
		#else
			vUv
		#endif
		);
	#endif
	#ifdef DOUBLE_SIDED
		tbn[0] *= faceDirection;
		tbn[1] *= faceDirection;
	#endif
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	#ifdef USE_TANGENT
		mat3 tbn2 = mat3( normalize( vTangent ), normalize( vBitangent ), normal );
	#else
		mat3 tbn2 = getTangentFrame( - vViewPosition, normal, vClearcoatNormalMapUv );
	#endif
	#ifdef DOUBLE_SIDED
		tbn2[0] *= faceDirection;
		tbn2[1] *= faceDirection;
	#endif
#endif
vec3 nonPerturbedNormal = normal;`,Dv=`#ifdef USE_NORMALMAP_OBJECTSPACE
	normal = texture2D( normalMap, vNormalMapUv ).xyz * 2.0 - 1.0;
	#ifdef FLIP_SIDED
		normal = - normal;
	#endif
	#ifdef DOUBLE_SIDED
		normal = normal * faceDirection;
	#endif
	normal = normalize( normalMatrix * normal );
#elif defined( USE_NORMALMAP_TANGENTSPACE )
	vec3 mapN = texture2D( normalMap, vNormalMapUv ).xyz * 2.0 - 1.0;
	#if defined( USE_PACKED_NORMALMAP )
		mapN = vec3( mapN.xy, sqrt( saturate( 1.0 - dot( mapN.xy, mapN.xy ) ) ) );
	#endif
	mapN.xy *= normalScale;
	normal = normalize( tbn * mapN );
#elif defined( USE_BUMPMAP )
	normal = perturbNormalArb( - vViewPosition, normal, dHdxy_fwd(), faceDirection );
#endif`,Nv=`#ifndef FLAT_SHADED
	varying vec3 vNormal;
	#ifdef USE_TANGENT
		varying vec3 vTangent;
		varying vec3 vBitangent;
	#endif
#endif`,Iv=`#ifndef FLAT_SHADED
	varying vec3 vNormal;
	#ifdef USE_TANGENT
		varying vec3 vTangent;
		varying vec3 vBitangent;
	#endif
#endif`,Uv=`#ifndef FLAT_SHADED
	vNormal = normalize( transformedNormal );
	#ifdef USE_TANGENT
		vTangent = normalize( transformedTangent );
		vBitangent = normalize( cross( vNormal, vTangent ) * tangent.w );
		#ifdef FLIP_SIDED
			vBitangent = - vBitangent;
		#endif
	#endif
#endif`,Fv=`#ifdef USE_NORMALMAP
	uniform sampler2D normalMap;
	uniform vec2 normalScale;
#endif
#ifdef USE_NORMALMAP_OBJECTSPACE
	uniform mat3 normalMatrix;
#endif
#if ! defined ( USE_TANGENT ) && ( defined ( USE_NORMALMAP_TANGENTSPACE ) || defined ( USE_CLEARCOAT_NORMALMAP ) || defined( USE_ANISOTROPY ) )
	mat3 getTangentFrame( vec3 eye_pos, vec3 surf_norm, vec2 uv ) {
		vec3 q0 = dFdx( eye_pos.xyz );
		vec3 q1 = dFdy( eye_pos.xyz );
		vec2 st0 = dFdx( uv.st );
		vec2 st1 = dFdy( uv.st );
		vec3 N = surf_norm;
		vec3 q1perp = cross( q1, N );
		vec3 q0perp = cross( N, q0 );
		vec3 T = q1perp * st0.x + q0perp * st1.x;
		vec3 B = q1perp * st0.y + q0perp * st1.y;
		float det = max( dot( T, T ), dot( B, B ) );
		float scale = ( det == 0.0 ) ? 0.0 : inversesqrt( det );
		return mat3( T * scale, B * scale, N );
	}
#endif`,Ov=`#ifdef USE_CLEARCOAT
	vec3 clearcoatNormal = nonPerturbedNormal;
#endif`,Bv=`#ifdef USE_CLEARCOAT_NORMALMAP
	vec3 clearcoatMapN = texture2D( clearcoatNormalMap, vClearcoatNormalMapUv ).xyz * 2.0 - 1.0;
	clearcoatMapN.xy *= clearcoatNormalScale;
	clearcoatNormal = normalize( tbn2 * clearcoatMapN );
#endif`,zv=`#ifdef USE_CLEARCOATMAP
	uniform sampler2D clearcoatMap;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	uniform sampler2D clearcoatNormalMap;
	uniform vec2 clearcoatNormalScale;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	uniform sampler2D clearcoatRoughnessMap;
#endif`,kv=`#ifdef USE_IRIDESCENCEMAP
	uniform sampler2D iridescenceMap;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	uniform sampler2D iridescenceThicknessMap;
#endif`,Gv=`#ifdef OPAQUE
diffuseColor.a = 1.0;
#endif
#ifdef USE_TRANSMISSION
diffuseColor.a *= material.transmissionAlpha;
#endif
gl_FragColor = vec4( outgoingLight, diffuseColor.a );`,Hv=`vec3 packNormalToRGB( const in vec3 normal ) {
	return normalize( normal ) * 0.5 + 0.5;
}
vec3 unpackRGBToNormal( const in vec3 rgb ) {
	return 2.0 * rgb.xyz - 1.0;
}
const float PackUpscale = 256. / 255.;const float UnpackDownscale = 255. / 256.;const float ShiftRight8 = 1. / 256.;
const float Inv255 = 1. / 255.;
const vec4 PackFactors = vec4( 1.0, 256.0, 256.0 * 256.0, 256.0 * 256.0 * 256.0 );
const vec2 UnpackFactors2 = vec2( UnpackDownscale, 1.0 / PackFactors.g );
const vec3 UnpackFactors3 = vec3( UnpackDownscale / PackFactors.rg, 1.0 / PackFactors.b );
const vec4 UnpackFactors4 = vec4( UnpackDownscale / PackFactors.rgb, 1.0 / PackFactors.a );
vec4 packDepthToRGBA( const in float v ) {
	if( v <= 0.0 )
		return vec4( 0., 0., 0., 0. );
	if( v >= 1.0 )
		return vec4( 1., 1., 1., 1. );
	float vuf;
	float af = modf( v * PackFactors.a, vuf );
	float bf = modf( vuf * ShiftRight8, vuf );
	float gf = modf( vuf * ShiftRight8, vuf );
	return vec4( vuf * Inv255, gf * PackUpscale, bf * PackUpscale, af );
}
vec3 packDepthToRGB( const in float v ) {
	if( v <= 0.0 )
		return vec3( 0., 0., 0. );
	if( v >= 1.0 )
		return vec3( 1., 1., 1. );
	float vuf;
	float bf = modf( v * PackFactors.b, vuf );
	float gf = modf( vuf * ShiftRight8, vuf );
	return vec3( vuf * Inv255, gf * PackUpscale, bf );
}
vec2 packDepthToRG( const in float v ) {
	if( v <= 0.0 )
		return vec2( 0., 0. );
	if( v >= 1.0 )
		return vec2( 1., 1. );
	float vuf;
	float gf = modf( v * 256., vuf );
	return vec2( vuf * Inv255, gf );
}
float unpackRGBAToDepth( const in vec4 v ) {
	return dot( v, UnpackFactors4 );
}
float unpackRGBToDepth( const in vec3 v ) {
	return dot( v, UnpackFactors3 );
}
float unpackRGToDepth( const in vec2 v ) {
	return v.r * UnpackFactors2.r + v.g * UnpackFactors2.g;
}
vec4 pack2HalfToRGBA( const in vec2 v ) {
	vec4 r = vec4( v.x, fract( v.x * 255.0 ), v.y, fract( v.y * 255.0 ) );
	return vec4( r.x - r.y / 255.0, r.y, r.z - r.w / 255.0, r.w );
}
vec2 unpackRGBATo2Half( const in vec4 v ) {
	return vec2( v.x + ( v.y / 255.0 ), v.z + ( v.w / 255.0 ) );
}
float viewZToOrthographicDepth( const in float viewZ, const in float near, const in float far ) {
	return ( viewZ + near ) / ( near - far );
}
float orthographicDepthToViewZ( const in float depth, const in float near, const in float far ) {
	#ifdef USE_REVERSED_DEPTH_BUFFER
	
		return depth * ( far - near ) - far;
	#else
		return depth * ( near - far ) - near;
	#endif
}
float viewZToPerspectiveDepth( const in float viewZ, const in float near, const in float far ) {
	return ( ( near + viewZ ) * far ) / ( ( far - near ) * viewZ );
}
float perspectiveDepthToViewZ( const in float depth, const in float near, const in float far ) {
	
	#ifdef USE_REVERSED_DEPTH_BUFFER
		return ( near * far ) / ( ( near - far ) * depth - near );
	#else
		return ( near * far ) / ( ( far - near ) * depth - far );
	#endif
}`,Vv=`#ifdef PREMULTIPLIED_ALPHA
	gl_FragColor.rgb *= gl_FragColor.a;
#endif`,Wv=`vec4 mvPosition = vec4( transformed, 1.0 );
#ifdef USE_BATCHING
	mvPosition = batchingMatrix * mvPosition;
#endif
#ifdef USE_INSTANCING
	mvPosition = instanceMatrix * mvPosition;
#endif
mvPosition = modelViewMatrix * mvPosition;
gl_Position = projectionMatrix * mvPosition;`,Xv=`#ifdef DITHERING
	gl_FragColor.rgb = dithering( gl_FragColor.rgb );
#endif`,qv=`#ifdef DITHERING
	vec3 dithering( vec3 color ) {
		float grid_position = rand( gl_FragCoord.xy );
		vec3 dither_shift_RGB = vec3( 0.25 / 255.0, -0.25 / 255.0, 0.25 / 255.0 );
		dither_shift_RGB = mix( 2.0 * dither_shift_RGB, -2.0 * dither_shift_RGB, grid_position );
		return color + dither_shift_RGB;
	}
#endif`,Yv=`float roughnessFactor = roughness;
#ifdef USE_ROUGHNESSMAP
	vec4 texelRoughness = texture2D( roughnessMap, vRoughnessMapUv );
	roughnessFactor *= texelRoughness.g;
#endif`,$v=`#ifdef USE_ROUGHNESSMAP
	uniform sampler2D roughnessMap;
#endif`,Kv=`#if NUM_SPOT_LIGHT_COORDS > 0
	varying vec4 vSpotLightCoord[ NUM_SPOT_LIGHT_COORDS ];
#endif
#if NUM_SPOT_LIGHT_MAPS > 0
	uniform sampler2D spotLightMap[ NUM_SPOT_LIGHT_MAPS ];
#endif
#ifdef USE_SHADOWMAP
	#if NUM_SUN_LIGHT_SHADOWS > 0
		#define SUN_LIGHT_CASCADES 2
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform sampler2DShadow sunShadowMap[ NUM_SUN_LIGHT_SHADOWS ];
		#else
			uniform sampler2D sunShadowMap[ NUM_SUN_LIGHT_SHADOWS ];
		#endif
		uniform mat4 sunShadowMatrix[ NUM_SUN_LIGHT_SHADOWS * SUN_LIGHT_CASCADES ];
		uniform vec4 sunShadowCascade[ NUM_SUN_LIGHT_SHADOWS * SUN_LIGHT_CASCADES ];
		varying vec4 vSunShadowWorldPosition;
		varying vec3 vSunShadowWorldNormal;
		struct SunLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform SunLightShadow sunLightShadows[ NUM_SUN_LIGHT_SHADOWS ];
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform sampler2DShadow directionalShadowMap[ NUM_DIR_LIGHT_SHADOWS ];
		#else
			uniform sampler2D directionalShadowMap[ NUM_DIR_LIGHT_SHADOWS ];
		#endif
		varying vec4 vDirectionalShadowCoord[ NUM_DIR_LIGHT_SHADOWS ];
		struct DirectionalLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform DirectionalLightShadow directionalLightShadows[ NUM_DIR_LIGHT_SHADOWS ];
	#endif
	#if NUM_SPOT_LIGHT_SHADOWS > 0
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform sampler2DShadow spotShadowMap[ NUM_SPOT_LIGHT_SHADOWS ];
		#else
			uniform sampler2D spotShadowMap[ NUM_SPOT_LIGHT_SHADOWS ];
		#endif
		struct SpotLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform SpotLightShadow spotLightShadows[ NUM_SPOT_LIGHT_SHADOWS ];
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform samplerCubeShadow pointShadowMap[ NUM_POINT_LIGHT_SHADOWS ];
		#elif defined( SHADOWMAP_TYPE_BASIC )
			uniform samplerCube pointShadowMap[ NUM_POINT_LIGHT_SHADOWS ];
		#endif
		varying vec4 vPointShadowCoord[ NUM_POINT_LIGHT_SHADOWS ];
		struct PointLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
			float shadowCameraNear;
			float shadowCameraFar;
		};
		uniform PointLightShadow pointLightShadows[ NUM_POINT_LIGHT_SHADOWS ];
	#endif
	#if defined( SHADOWMAP_TYPE_PCF )
		float interleavedGradientNoise( vec2 position ) {
			return fract( 52.9829189 * fract( dot( position, vec2( 0.06711056, 0.00583715 ) ) ) );
		}
		vec2 vogelDiskSample( int sampleIndex, int samplesCount, float phi ) {
			const float goldenAngle = 2.399963229728653;
			float r = sqrt( ( float( sampleIndex ) + 0.5 ) / float( samplesCount ) );
			float theta = float( sampleIndex ) * goldenAngle + phi;
			return vec2( cos( theta ), sin( theta ) ) * r;
		}
	#endif
	#if defined( SHADOWMAP_TYPE_PCF )
		float getShadow( sampler2DShadow shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord ) {
			float shadow = 1.0;
			shadowCoord.xyz /= shadowCoord.w;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				shadowCoord.z -= shadowBias;
			#else
				shadowCoord.z += shadowBias;
			#endif
			bool inFrustum = shadowCoord.x >= 0.0 && shadowCoord.x <= 1.0 && shadowCoord.y >= 0.0 && shadowCoord.y <= 1.0;
			bool frustumTest = inFrustum && shadowCoord.z <= 1.0;
			if ( frustumTest ) {
				vec2 texelSize = vec2( 1.0 ) / shadowMapSize;
				vec2 radius = shadowRadius * texelSize;
				float phi = interleavedGradientNoise( gl_FragCoord.xy ) * PI2;
				shadow = (
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 0, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 1, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 2, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 3, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 4, 5, phi ) * radius, shadowCoord.z ) )
				) * 0.2;
			}
			return mix( 1.0, shadow, shadowIntensity );
		}
	#elif defined( SHADOWMAP_TYPE_VSM )
		float getShadow( sampler2D shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord ) {
			float shadow = 1.0;
			shadowCoord.xyz /= shadowCoord.w;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				shadowCoord.z -= shadowBias;
			#else
				shadowCoord.z += shadowBias;
			#endif
			bool inFrustum = shadowCoord.x >= 0.0 && shadowCoord.x <= 1.0 && shadowCoord.y >= 0.0 && shadowCoord.y <= 1.0;
			bool frustumTest = inFrustum && shadowCoord.z <= 1.0;
			if ( frustumTest ) {
				vec2 distribution = texture2D( shadowMap, shadowCoord.xy ).rg;
				float mean = distribution.x;
				float variance = distribution.y * distribution.y;
				#ifdef USE_REVERSED_DEPTH_BUFFER
					float hard_shadow = step( mean, shadowCoord.z );
				#else
					float hard_shadow = step( shadowCoord.z, mean );
				#endif
				
				if ( hard_shadow == 1.0 ) {
					shadow = 1.0;
				} else {
					variance = max( variance, 0.0000001 );
					float d = shadowCoord.z - mean;
					float p_max = variance / ( variance + d * d );
					p_max = clamp( ( p_max - 0.3 ) / 0.65, 0.0, 1.0 );
					shadow = max( hard_shadow, p_max );
				}
			}
			return mix( 1.0, shadow, shadowIntensity );
		}
	#else
		float getShadow( sampler2D shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord ) {
			float shadow = 1.0;
			shadowCoord.xyz /= shadowCoord.w;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				shadowCoord.z -= shadowBias;
			#else
				shadowCoord.z += shadowBias;
			#endif
			bool inFrustum = shadowCoord.x >= 0.0 && shadowCoord.x <= 1.0 && shadowCoord.y >= 0.0 && shadowCoord.y <= 1.0;
			bool frustumTest = inFrustum && shadowCoord.z <= 1.0;
			if ( frustumTest ) {
				float depth = texture2D( shadowMap, shadowCoord.xy ).r;
				#ifdef USE_REVERSED_DEPTH_BUFFER
					shadow = step( depth, shadowCoord.z );
				#else
					shadow = step( shadowCoord.z, depth );
				#endif
			}
			return mix( 1.0, shadow, shadowIntensity );
		}
	#endif
	#if NUM_SUN_LIGHT_SHADOWS > 0
		float getSunShadow(
			#if defined( SHADOWMAP_TYPE_PCF )
				sampler2DShadow shadowMap,
			#else
				sampler2D shadowMap,
			#endif
			SunLightShadow sunLightShadow,
			int shadowIndex
		) {
			vec4 shadowWorldPosition = vec4( vSunShadowWorldPosition.xyz + vSunShadowWorldNormal * sunLightShadow.shadowNormalBias, 1.0 );
			float viewDepth = vSunShadowWorldPosition.w;
			int cascadeOffset = shadowIndex * SUN_LIGHT_CASCADES;
			float shadow = 1.0;
			for ( int i = SUN_LIGHT_CASCADES - 1; i >= 0; i -- ) {
				vec4 cascade = sunShadowCascade[ cascadeOffset + i ];
				if ( viewDepth >= cascade.x && viewDepth < cascade.y ) {
					float cascadeShadow = getShadow(
						shadowMap,
						sunLightShadow.shadowMapSize,
						sunLightShadow.shadowIntensity,
						sunLightShadow.shadowBias,
						sunLightShadow.shadowRadius,
						sunShadowMatrix[ cascadeOffset + i ] * shadowWorldPosition
					);
					shadow = mix( cascadeShadow, shadow, smoothstep( cascade.z, cascade.y, viewDepth ) );
				}
			}
			return shadow;
		}
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
	#if defined( SHADOWMAP_TYPE_PCF )
	float getPointShadow( samplerCubeShadow shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord, float shadowCameraNear, float shadowCameraFar ) {
		float shadow = 1.0;
		vec3 lightToPosition = shadowCoord.xyz;
		vec3 bd3D = normalize( lightToPosition );
		vec3 absVec = abs( lightToPosition );
		float viewSpaceZ = max( max( absVec.x, absVec.y ), absVec.z );
		if ( viewSpaceZ - shadowCameraFar <= 0.0 && viewSpaceZ - shadowCameraNear >= 0.0 ) {
			float lightDistance = length( lightToPosition );
			float depthRange = shadowCameraFar - shadowCameraNear;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				float depthA = - shadowCameraNear / depthRange - shadowBias;
				float depthB = shadowCameraNear * shadowCameraFar / ( depthRange * lightDistance );
			#else
				float depthA = shadowCameraFar / depthRange + shadowBias;
				float depthB = - shadowCameraNear * shadowCameraFar / ( depthRange * lightDistance );
			#endif
			float texelSize = shadowRadius / shadowMapSize.x;
			vec3 absDir = abs( bd3D );
			vec3 tangent = absDir.x > absDir.z ? vec3( 0.0, 1.0, 0.0 ) : vec3( 1.0, 0.0, 0.0 );
			tangent = normalize( cross( bd3D, tangent ) );
			vec3 bitangent = cross( bd3D, tangent );
			float phi = interleavedGradientNoise( gl_FragCoord.xy ) * PI2;
			shadow = 0.0;
			for ( int i = 0; i < 5; i ++ ) {
				vec2 offset = vogelDiskSample( i, 5, phi );
				vec3 direction = bd3D + ( tangent * offset.x + bitangent * offset.y ) * texelSize;
				vec3 absDirection = abs( direction );
				float dp = depthA + depthB / max( max( absDirection.x, absDirection.y ), absDirection.z );
				shadow += texture( shadowMap, vec4( direction, dp ) );
			}
			shadow *= 0.2;
		}
		return mix( 1.0, shadow, shadowIntensity );
	}
	#elif defined( SHADOWMAP_TYPE_BASIC )
	float getPointShadow( samplerCube shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord, float shadowCameraNear, float shadowCameraFar ) {
		float shadow = 1.0;
		vec3 lightToPosition = shadowCoord.xyz;
		vec3 absVec = abs( lightToPosition );
		float viewSpaceZ = max( max( absVec.x, absVec.y ), absVec.z );
		if ( viewSpaceZ - shadowCameraFar <= 0.0 && viewSpaceZ - shadowCameraNear >= 0.0 ) {
			float dp = ( shadowCameraFar * ( viewSpaceZ - shadowCameraNear ) ) / ( viewSpaceZ * ( shadowCameraFar - shadowCameraNear ) );
			dp += shadowBias;
			vec3 bd3D = normalize( lightToPosition );
			float depth = textureCube( shadowMap, bd3D ).r;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				depth = 1.0 - depth;
			#endif
			shadow = step( dp, depth );
		}
		return mix( 1.0, shadow, shadowIntensity );
	}
	#endif
	#endif
#endif`,Zv=`#if NUM_SPOT_LIGHT_COORDS > 0
	uniform mat4 spotLightMatrix[ NUM_SPOT_LIGHT_COORDS ];
	varying vec4 vSpotLightCoord[ NUM_SPOT_LIGHT_COORDS ];
#endif
#ifdef USE_SHADOWMAP
	#if NUM_SUN_LIGHT_SHADOWS > 0
		varying vec4 vSunShadowWorldPosition;
		varying vec3 vSunShadowWorldNormal;
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
		uniform mat4 directionalShadowMatrix[ NUM_DIR_LIGHT_SHADOWS ];
		varying vec4 vDirectionalShadowCoord[ NUM_DIR_LIGHT_SHADOWS ];
		struct DirectionalLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform DirectionalLightShadow directionalLightShadows[ NUM_DIR_LIGHT_SHADOWS ];
	#endif
	#if NUM_SPOT_LIGHT_SHADOWS > 0
		struct SpotLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform SpotLightShadow spotLightShadows[ NUM_SPOT_LIGHT_SHADOWS ];
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
		uniform mat4 pointShadowMatrix[ NUM_POINT_LIGHT_SHADOWS ];
		varying vec4 vPointShadowCoord[ NUM_POINT_LIGHT_SHADOWS ];
		struct PointLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
			float shadowCameraNear;
			float shadowCameraFar;
		};
		uniform PointLightShadow pointLightShadows[ NUM_POINT_LIGHT_SHADOWS ];
	#endif
#endif`,Jv=`#if ( defined( USE_SHADOWMAP ) && ( NUM_DIR_LIGHT_SHADOWS > 0 || NUM_SUN_LIGHT_SHADOWS > 0 || NUM_POINT_LIGHT_SHADOWS > 0 ) ) || ( NUM_SPOT_LIGHT_COORDS > 0 )
	#ifdef HAS_NORMAL
		vec3 shadowWorldNormal = transformNormalByInverseViewMatrix( transformedNormal, viewMatrix );
	#else
		vec3 shadowWorldNormal = vec3( 0.0 );
	#endif
	vec4 shadowWorldPosition;
#endif
#if defined( USE_SHADOWMAP )
	#if NUM_SUN_LIGHT_SHADOWS > 0
		vSunShadowWorldPosition = vec4( worldPosition.xyz, - mvPosition.z );
		vSunShadowWorldNormal = shadowWorldNormal;
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_DIR_LIGHT_SHADOWS; i ++ ) {
			shadowWorldPosition = worldPosition + vec4( shadowWorldNormal * directionalLightShadows[ i ].shadowNormalBias, 0 );
			vDirectionalShadowCoord[ i ] = directionalShadowMatrix[ i ] * shadowWorldPosition;
		}
		#pragma unroll_loop_end
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_POINT_LIGHT_SHADOWS; i ++ ) {
			shadowWorldPosition = worldPosition + vec4( shadowWorldNormal * pointLightShadows[ i ].shadowNormalBias, 0 );
			vPointShadowCoord[ i ] = pointShadowMatrix[ i ] * shadowWorldPosition;
		}
		#pragma unroll_loop_end
	#endif
#endif
#if NUM_SPOT_LIGHT_COORDS > 0
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SPOT_LIGHT_COORDS; i ++ ) {
		shadowWorldPosition = worldPosition;
		#if ( defined( USE_SHADOWMAP ) && UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS )
			shadowWorldPosition.xyz += shadowWorldNormal * spotLightShadows[ i ].shadowNormalBias;
		#endif
		vSpotLightCoord[ i ] = spotLightMatrix[ i ] * shadowWorldPosition;
	}
	#pragma unroll_loop_end
#endif`,Qv=`float getShadowMask() {
	float shadow = 1.0;
	#ifdef USE_SHADOWMAP
	#if NUM_SUN_LIGHT_SHADOWS > 0
	SunLightShadow sunLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SUN_LIGHT_SHADOWS; i ++ ) {
		sunLight = sunLightShadows[ i ];
		shadow *= receiveShadow ? getSunShadow( sunShadowMap[ i ], sunLight, UNROLLED_LOOP_INDEX ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
	DirectionalLightShadow directionalLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_DIR_LIGHT_SHADOWS; i ++ ) {
		directionalLight = directionalLightShadows[ i ];
		shadow *= receiveShadow ? getShadow( directionalShadowMap[ i ], directionalLight.shadowMapSize, directionalLight.shadowIntensity, directionalLight.shadowBias, directionalLight.shadowRadius, vDirectionalShadowCoord[ i ] ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#if NUM_SPOT_LIGHT_SHADOWS > 0
	SpotLightShadow spotLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SPOT_LIGHT_SHADOWS; i ++ ) {
		spotLight = spotLightShadows[ i ];
		shadow *= receiveShadow ? getShadow( spotShadowMap[ i ], spotLight.shadowMapSize, spotLight.shadowIntensity, spotLight.shadowBias, spotLight.shadowRadius, vSpotLightCoord[ i ] ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0 && ( defined( SHADOWMAP_TYPE_PCF ) || defined( SHADOWMAP_TYPE_BASIC ) )
	PointLightShadow pointLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_POINT_LIGHT_SHADOWS; i ++ ) {
		pointLight = pointLightShadows[ i ];
		shadow *= receiveShadow ? getPointShadow( pointShadowMap[ i ], pointLight.shadowMapSize, pointLight.shadowIntensity, pointLight.shadowBias, pointLight.shadowRadius, vPointShadowCoord[ i ], pointLight.shadowCameraNear, pointLight.shadowCameraFar ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#endif
	return shadow;
}`,jv=`#ifdef USE_SKINNING
	mat4 boneMatX = getBoneMatrix( skinIndex.x );
	mat4 boneMatY = getBoneMatrix( skinIndex.y );
	mat4 boneMatZ = getBoneMatrix( skinIndex.z );
	mat4 boneMatW = getBoneMatrix( skinIndex.w );
#endif`,ex=`#ifdef USE_SKINNING
	uniform mat4 bindMatrix;
	uniform mat4 bindMatrixInverse;
	uniform highp sampler2D boneTexture;
	mat4 getBoneMatrix( const in float i ) {
		int size = textureSize( boneTexture, 0 ).x;
		int j = int( i ) * 4;
		int x = j % size;
		int y = j / size;
		vec4 v1 = texelFetch( boneTexture, ivec2( x, y ), 0 );
		vec4 v2 = texelFetch( boneTexture, ivec2( x + 1, y ), 0 );
		vec4 v3 = texelFetch( boneTexture, ivec2( x + 2, y ), 0 );
		vec4 v4 = texelFetch( boneTexture, ivec2( x + 3, y ), 0 );
		return mat4( v1, v2, v3, v4 );
	}
#endif`,tx=`#ifdef USE_SKINNING
	vec4 skinVertex = bindMatrix * vec4( transformed, 1.0 );
	vec4 skinned = vec4( 0.0 );
	skinned += boneMatX * skinVertex * skinWeight.x;
	skinned += boneMatY * skinVertex * skinWeight.y;
	skinned += boneMatZ * skinVertex * skinWeight.z;
	skinned += boneMatW * skinVertex * skinWeight.w;
	transformed = ( bindMatrixInverse * skinned ).xyz;
#endif`,nx=`#ifdef USE_SKINNING
	mat4 skinMatrix = mat4( 0.0 );
	skinMatrix += skinWeight.x * boneMatX;
	skinMatrix += skinWeight.y * boneMatY;
	skinMatrix += skinWeight.z * boneMatZ;
	skinMatrix += skinWeight.w * boneMatW;
	skinMatrix = bindMatrixInverse * skinMatrix * bindMatrix;
	objectNormal = vec4( skinMatrix * vec4( objectNormal, 0.0 ) ).xyz;
	#ifdef USE_TANGENT
		objectTangent = vec4( skinMatrix * vec4( objectTangent, 0.0 ) ).xyz;
	#endif
#endif`,ix=`float specularStrength;
#ifdef USE_SPECULARMAP
	vec4 texelSpecular = texture2D( specularMap, vSpecularMapUv );
	specularStrength = texelSpecular.r;
#else
	specularStrength = 1.0;
#endif`,sx=`#ifdef USE_SPECULARMAP
	uniform sampler2D specularMap;
#endif`,rx=`#if defined( TONE_MAPPING )
	gl_FragColor.rgb = toneMapping( gl_FragColor.rgb );
#endif`,ax=`#ifndef saturate
#define saturate( a ) clamp( a, 0.0, 1.0 )
#endif
uniform float toneMappingExposure;
vec3 LinearToneMapping( vec3 color ) {
	return saturate( toneMappingExposure * color );
}
vec3 ReinhardToneMapping( vec3 color ) {
	color *= toneMappingExposure;
	return saturate( color / ( vec3( 1.0 ) + color ) );
}
vec3 CineonToneMapping( vec3 color ) {
	color *= toneMappingExposure;
	color = max( vec3( 0.0 ), color - 0.004 );
	return pow( ( color * ( 6.2 * color + 0.5 ) ) / ( color * ( 6.2 * color + 1.7 ) + 0.06 ), vec3( 2.2 ) );
}
vec3 RRTAndODTFit( vec3 v ) {
	vec3 a = v * ( v + 0.0245786 ) - 0.000090537;
	vec3 b = v * ( 0.983729 * v + 0.4329510 ) + 0.238081;
	return a / b;
}
vec3 ACESFilmicToneMapping( vec3 color ) {
	const mat3 ACESInputMat = mat3(
		vec3( 0.59719, 0.07600, 0.02840 ),		vec3( 0.35458, 0.90834, 0.13383 ),
		vec3( 0.04823, 0.01566, 0.83777 )
	);
	const mat3 ACESOutputMat = mat3(
		vec3(  1.60475, -0.10208, -0.00327 ),		vec3( -0.53108,  1.10813, -0.07276 ),
		vec3( -0.07367, -0.00605,  1.07602 )
	);
	color *= toneMappingExposure / 0.6;
	color = ACESInputMat * color;
	color = RRTAndODTFit( color );
	color = ACESOutputMat * color;
	return saturate( color );
}
const mat3 LINEAR_REC2020_TO_LINEAR_SRGB = mat3(
	vec3( 1.6605, - 0.1246, - 0.0182 ),
	vec3( - 0.5876, 1.1329, - 0.1006 ),
	vec3( - 0.0728, - 0.0083, 1.1187 )
);
const mat3 LINEAR_SRGB_TO_LINEAR_REC2020 = mat3(
	vec3( 0.6274, 0.0691, 0.0164 ),
	vec3( 0.3293, 0.9195, 0.0880 ),
	vec3( 0.0433, 0.0113, 0.8956 )
);
vec3 agxDefaultContrastApprox( vec3 x ) {
	vec3 x2 = x * x;
	vec3 x4 = x2 * x2;
	return + 15.5 * x4 * x2
		- 40.14 * x4 * x
		+ 31.96 * x4
		- 6.868 * x2 * x
		+ 0.4298 * x2
		+ 0.1191 * x
		- 0.00232;
}
vec3 AgXToneMapping( vec3 color ) {
	const mat3 AgXInsetMatrix = mat3(
		vec3( 0.856627153315983, 0.137318972929847, 0.11189821299995 ),
		vec3( 0.0951212405381588, 0.761241990602591, 0.0767994186031903 ),
		vec3( 0.0482516061458583, 0.101439036467562, 0.811302368396859 )
	);
	const mat3 AgXOutsetMatrix = mat3(
		vec3( 1.1271005818144368, - 0.1413297634984383, - 0.14132976349843826 ),
		vec3( - 0.11060664309660323, 1.157823702216272, - 0.11060664309660294 ),
		vec3( - 0.016493938717834573, - 0.016493938717834257, 1.2519364065950405 )
	);
	const float AgxMinEv = - 12.47393;	const float AgxMaxEv = 4.026069;
	color *= toneMappingExposure;
	color = LINEAR_SRGB_TO_LINEAR_REC2020 * color;
	color = AgXInsetMatrix * color;
	color = max( color, 1e-10 );	color = log2( color );
	color = ( color - AgxMinEv ) / ( AgxMaxEv - AgxMinEv );
	color = clamp( color, 0.0, 1.0 );
	color = agxDefaultContrastApprox( color );
	color = AgXOutsetMatrix * color;
	color = pow( max( vec3( 0.0 ), color ), vec3( 2.2 ) );
	color = LINEAR_REC2020_TO_LINEAR_SRGB * color;
	color = clamp( color, 0.0, 1.0 );
	return color;
}
vec3 NeutralToneMapping( vec3 color ) {
	const float StartCompression = 0.8 - 0.04;
	const float Desaturation = 0.15;
	color *= toneMappingExposure;
	float x = min( color.r, min( color.g, color.b ) );
	float offset = x < 0.08 ? x - 6.25 * x * x : 0.04;
	color -= offset;
	float peak = max( color.r, max( color.g, color.b ) );
	if ( peak < StartCompression ) return color;
	float d = 1. - StartCompression;
	float newPeak = 1. - d * d / ( peak + d - StartCompression );
	color *= newPeak / peak;
	float g = 1. - 1. / ( Desaturation * ( peak - newPeak ) + 1. );
	return mix( color, vec3( newPeak ), g );
}
vec3 CustomToneMapping( vec3 color ) { return color; }`,ox=`#ifdef USE_TRANSMISSION
	material.transmission = transmission;
	material.transmissionAlpha = 1.0;
	material.thickness = thickness;
	material.attenuationDistance = attenuationDistance;
	material.attenuationColor = attenuationColor;
	#ifdef USE_TRANSMISSIONMAP
		material.transmission *= texture2D( transmissionMap, vTransmissionMapUv ).r;
	#endif
	#ifdef USE_THICKNESSMAP
		material.thickness *= texture2D( thicknessMap, vThicknessMapUv ).g;
	#endif
	vec3 pos = vWorldPosition;
	vec3 v = normalize( cameraPosition - pos );
	vec3 n = transformNormalByInverseViewMatrix( normal, viewMatrix );
	vec4 transmitted = getIBLVolumeRefraction(
		n, v, material.roughness, material.diffuseContribution, material.specularColorBlended, material.specularF90,
		pos, modelMatrix, viewMatrix, projectionMatrix, material.dispersion, material.ior, material.thickness,
		material.attenuationColor, material.attenuationDistance );
	material.transmissionAlpha = mix( material.transmissionAlpha, transmitted.a, material.transmission );
	totalDiffuse = mix( totalDiffuse, transmitted.rgb, material.transmission );
#endif`,lx=`#ifdef USE_TRANSMISSION
	uniform float transmission;
	uniform float thickness;
	uniform float attenuationDistance;
	uniform vec3 attenuationColor;
	#ifdef USE_TRANSMISSIONMAP
		uniform sampler2D transmissionMap;
	#endif
	#ifdef USE_THICKNESSMAP
		uniform sampler2D thicknessMap;
	#endif
	uniform vec2 transmissionSamplerSize;
	uniform sampler2D transmissionSamplerMap;
	uniform mat4 modelMatrix;
	uniform mat4 projectionMatrix;
	varying vec3 vWorldPosition;
	float w0( float a ) {
		return ( 1.0 / 6.0 ) * ( a * ( a * ( - a + 3.0 ) - 3.0 ) + 1.0 );
	}
	float w1( float a ) {
		return ( 1.0 / 6.0 ) * ( a *  a * ( 3.0 * a - 6.0 ) + 4.0 );
	}
	float w2( float a ){
		return ( 1.0 / 6.0 ) * ( a * ( a * ( - 3.0 * a + 3.0 ) + 3.0 ) + 1.0 );
	}
	float w3( float a ) {
		return ( 1.0 / 6.0 ) * ( a * a * a );
	}
	float g0( float a ) {
		return w0( a ) + w1( a );
	}
	float g1( float a ) {
		return w2( a ) + w3( a );
	}
	float h0( float a ) {
		return - 1.0 + w1( a ) / ( w0( a ) + w1( a ) );
	}
	float h1( float a ) {
		return 1.0 + w3( a ) / ( w2( a ) + w3( a ) );
	}
	vec4 bicubic( sampler2D tex, vec2 uv, vec4 texelSize, float lod ) {
		uv = uv * texelSize.zw + 0.5;
		vec2 iuv = floor( uv );
		vec2 fuv = fract( uv );
		float g0x = g0( fuv.x );
		float g1x = g1( fuv.x );
		float h0x = h0( fuv.x );
		float h1x = h1( fuv.x );
		float h0y = h0( fuv.y );
		float h1y = h1( fuv.y );
		vec2 p0 = ( vec2( iuv.x + h0x, iuv.y + h0y ) - 0.5 ) * texelSize.xy;
		vec2 p1 = ( vec2( iuv.x + h1x, iuv.y + h0y ) - 0.5 ) * texelSize.xy;
		vec2 p2 = ( vec2( iuv.x + h0x, iuv.y + h1y ) - 0.5 ) * texelSize.xy;
		vec2 p3 = ( vec2( iuv.x + h1x, iuv.y + h1y ) - 0.5 ) * texelSize.xy;
		return g0( fuv.y ) * ( g0x * textureLod( tex, p0, lod ) + g1x * textureLod( tex, p1, lod ) ) +
			g1( fuv.y ) * ( g0x * textureLod( tex, p2, lod ) + g1x * textureLod( tex, p3, lod ) );
	}
	vec4 textureBicubic( sampler2D sampler, vec2 uv, float lod ) {
		vec2 fLodSize = vec2( textureSize( sampler, int( lod ) ) );
		vec2 cLodSize = vec2( textureSize( sampler, int( lod + 1.0 ) ) );
		vec2 fLodSizeInv = 1.0 / fLodSize;
		vec2 cLodSizeInv = 1.0 / cLodSize;
		vec4 fSample = bicubic( sampler, uv, vec4( fLodSizeInv, fLodSize ), floor( lod ) );
		vec4 cSample = bicubic( sampler, uv, vec4( cLodSizeInv, cLodSize ), ceil( lod ) );
		return mix( fSample, cSample, fract( lod ) );
	}
	vec3 getVolumeTransmissionRay( const in vec3 n, const in vec3 v, const in float thickness, const in float ior, const in mat4 modelMatrix ) {
		vec3 refractionVector = refract( - v, normalize( n ), 1.0 / ior );
		vec3 modelScale;
		modelScale.x = length( vec3( modelMatrix[ 0 ].xyz ) );
		modelScale.y = length( vec3( modelMatrix[ 1 ].xyz ) );
		modelScale.z = length( vec3( modelMatrix[ 2 ].xyz ) );
		return normalize( refractionVector ) * thickness * modelScale;
	}
	float applyIorToRoughness( const in float roughness, const in float ior ) {
		return roughness * clamp( ior * 2.0 - 2.0, 0.0, 1.0 );
	}
	vec4 getTransmissionSample( const in vec2 fragCoord, const in float roughness, const in float ior ) {
		float lod = log2( transmissionSamplerSize.x ) * applyIorToRoughness( roughness, ior );
		return textureBicubic( transmissionSamplerMap, fragCoord.xy, lod );
	}
	vec3 volumeAttenuation( const in float transmissionDistance, const in vec3 attenuationColor, const in float attenuationDistance ) {
		if ( isinf( attenuationDistance ) ) {
			return vec3( 1.0 );
		} else {
			vec3 attenuationCoefficient = -log( attenuationColor ) / attenuationDistance;
			vec3 transmittance = exp( - attenuationCoefficient * transmissionDistance );			return transmittance;
		}
	}
	vec4 getIBLVolumeRefraction( const in vec3 n, const in vec3 v, const in float roughness, const in vec3 diffuseColor,
		const in vec3 specularColor, const in float specularF90, const in vec3 position, const in mat4 modelMatrix,
		const in mat4 viewMatrix, const in mat4 projMatrix, const in float dispersion, const in float ior, const in float thickness,
		const in vec3 attenuationColor, const in float attenuationDistance ) {
		vec4 transmittedLight;
		vec3 transmittance;
		#ifdef USE_DISPERSION
			float halfSpread = ( ior - 1.0 ) * 0.025 * dispersion;
			vec3 iors = vec3( ior - halfSpread, ior, ior + halfSpread );
			for ( int i = 0; i < 3; i ++ ) {
				vec3 transmissionRay = getVolumeTransmissionRay( n, v, thickness, iors[ i ], modelMatrix );
				vec3 refractedRayExit = position + transmissionRay;
				vec4 ndcPos = projMatrix * viewMatrix * vec4( refractedRayExit, 1.0 );
				vec2 refractionCoords = ndcPos.xy / ndcPos.w;
				refractionCoords += 1.0;
				refractionCoords /= 2.0;
				vec4 transmissionSample = getTransmissionSample( refractionCoords, roughness, iors[ i ] );
				transmittedLight[ i ] = transmissionSample[ i ];
				transmittedLight.a += transmissionSample.a;
				transmittance[ i ] = diffuseColor[ i ] * volumeAttenuation( length( transmissionRay ), attenuationColor, attenuationDistance )[ i ];
			}
			transmittedLight.a /= 3.0;
		#else
			vec3 transmissionRay = getVolumeTransmissionRay( n, v, thickness, ior, modelMatrix );
			vec3 refractedRayExit = position + transmissionRay;
			vec4 ndcPos = projMatrix * viewMatrix * vec4( refractedRayExit, 1.0 );
			vec2 refractionCoords = ndcPos.xy / ndcPos.w;
			refractionCoords += 1.0;
			refractionCoords /= 2.0;
			transmittedLight = getTransmissionSample( refractionCoords, roughness, ior );
			transmittance = diffuseColor * volumeAttenuation( length( transmissionRay ), attenuationColor, attenuationDistance );
		#endif
		vec3 attenuatedColor = transmittance * transmittedLight.rgb;
		vec3 F = EnvironmentBRDF( n, v, specularColor, specularF90, roughness );
		float transmittanceFactor = ( transmittance.r + transmittance.g + transmittance.b ) / 3.0;
		return vec4( ( 1.0 - F ) * attenuatedColor, 1.0 - ( 1.0 - transmittedLight.a ) * transmittanceFactor );
	}
#endif`,cx=`#if defined( USE_UV ) || defined( USE_ANISOTROPY )
	varying vec2 vUv;
#endif
#ifdef USE_MAP
	varying vec2 vMapUv;
#endif
#ifdef USE_ALPHAMAP
	varying vec2 vAlphaMapUv;
#endif
#ifdef USE_LIGHTMAP
	varying vec2 vLightMapUv;
#endif
#ifdef USE_AOMAP
	varying vec2 vAoMapUv;
#endif
#ifdef USE_BUMPMAP
	varying vec2 vBumpMapUv;
#endif
#ifdef USE_NORMALMAP
	varying vec2 vNormalMapUv;
#endif
#ifdef USE_EMISSIVEMAP
	varying vec2 vEmissiveMapUv;
#endif
#ifdef USE_METALNESSMAP
	varying vec2 vMetalnessMapUv;
#endif
#ifdef USE_ROUGHNESSMAP
	varying vec2 vRoughnessMapUv;
#endif
#ifdef USE_DIFFUSE_ROUGHNESSMAP
	varying vec2 vDiffuseRoughnessMapUv;
#endif
#ifdef USE_ANISOTROPYMAP
	varying vec2 vAnisotropyMapUv;
#endif
#ifdef USE_CLEARCOATMAP
	varying vec2 vClearcoatMapUv;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	varying vec2 vClearcoatNormalMapUv;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	varying vec2 vClearcoatRoughnessMapUv;
#endif
#ifdef USE_IRIDESCENCEMAP
	varying vec2 vIridescenceMapUv;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	varying vec2 vIridescenceThicknessMapUv;
#endif
#ifdef USE_SHEEN_COLORMAP
	varying vec2 vSheenColorMapUv;
#endif
#ifdef USE_SHEEN_ROUGHNESSMAP
	varying vec2 vSheenRoughnessMapUv;
#endif
#ifdef USE_SPECULARMAP
	varying vec2 vSpecularMapUv;
#endif
#ifdef USE_SPECULAR_COLORMAP
	varying vec2 vSpecularColorMapUv;
#endif
#ifdef USE_SPECULAR_INTENSITYMAP
	varying vec2 vSpecularIntensityMapUv;
#endif
#ifdef USE_TRANSMISSIONMAP
	uniform mat3 transmissionMapTransform;
	varying vec2 vTransmissionMapUv;
#endif
#ifdef USE_THICKNESSMAP
	uniform mat3 thicknessMapTransform;
	varying vec2 vThicknessMapUv;
#endif`,ux=`#if defined( USE_UV ) || defined( USE_ANISOTROPY )
	varying vec2 vUv;
#endif
#ifdef USE_MAP
	uniform mat3 mapTransform;
	varying vec2 vMapUv;
#endif
#ifdef USE_ALPHAMAP
	uniform mat3 alphaMapTransform;
	varying vec2 vAlphaMapUv;
#endif
#ifdef USE_LIGHTMAP
	uniform mat3 lightMapTransform;
	varying vec2 vLightMapUv;
#endif
#ifdef USE_AOMAP
	uniform mat3 aoMapTransform;
	varying vec2 vAoMapUv;
#endif
#ifdef USE_BUMPMAP
	uniform mat3 bumpMapTransform;
	varying vec2 vBumpMapUv;
#endif
#ifdef USE_NORMALMAP
	uniform mat3 normalMapTransform;
	varying vec2 vNormalMapUv;
#endif
#ifdef USE_DISPLACEMENTMAP
	uniform mat3 displacementMapTransform;
	varying vec2 vDisplacementMapUv;
#endif
#ifdef USE_EMISSIVEMAP
	uniform mat3 emissiveMapTransform;
	varying vec2 vEmissiveMapUv;
#endif
#ifdef USE_METALNESSMAP
	uniform mat3 metalnessMapTransform;
	varying vec2 vMetalnessMapUv;
#endif
#ifdef USE_ROUGHNESSMAP
	uniform mat3 roughnessMapTransform;
	varying vec2 vRoughnessMapUv;
#endif
#ifdef USE_DIFFUSE_ROUGHNESSMAP
	uniform mat3 diffuseRoughnessMapTransform;
	varying vec2 vDiffuseRoughnessMapUv;
#endif
#ifdef USE_ANISOTROPYMAP
	uniform mat3 anisotropyMapTransform;
	varying vec2 vAnisotropyMapUv;
#endif
#ifdef USE_CLEARCOATMAP
	uniform mat3 clearcoatMapTransform;
	varying vec2 vClearcoatMapUv;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	uniform mat3 clearcoatNormalMapTransform;
	varying vec2 vClearcoatNormalMapUv;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	uniform mat3 clearcoatRoughnessMapTransform;
	varying vec2 vClearcoatRoughnessMapUv;
#endif
#ifdef USE_SHEEN_COLORMAP
	uniform mat3 sheenColorMapTransform;
	varying vec2 vSheenColorMapUv;
#endif
#ifdef USE_SHEEN_ROUGHNESSMAP
	uniform mat3 sheenRoughnessMapTransform;
	varying vec2 vSheenRoughnessMapUv;
#endif
#ifdef USE_IRIDESCENCEMAP
	uniform mat3 iridescenceMapTransform;
	varying vec2 vIridescenceMapUv;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	uniform mat3 iridescenceThicknessMapTransform;
	varying vec2 vIridescenceThicknessMapUv;
#endif
#ifdef USE_SPECULARMAP
	uniform mat3 specularMapTransform;
	varying vec2 vSpecularMapUv;
#endif
#ifdef USE_SPECULAR_COLORMAP
	uniform mat3 specularColorMapTransform;
	varying vec2 vSpecularColorMapUv;
#endif
#ifdef USE_SPECULAR_INTENSITYMAP
	uniform mat3 specularIntensityMapTransform;
	varying vec2 vSpecularIntensityMapUv;
#endif
#ifdef USE_TRANSMISSIONMAP
	uniform mat3 transmissionMapTransform;
	varying vec2 vTransmissionMapUv;
#endif
#ifdef USE_THICKNESSMAP
	uniform mat3 thicknessMapTransform;
	varying vec2 vThicknessMapUv;
#endif`,fx=`#if defined( USE_UV ) || defined( USE_ANISOTROPY )
	vUv = vec3( uv, 1 ).xy;
#endif
#ifdef USE_MAP
	vMapUv = ( mapTransform * vec3( MAP_UV, 1 ) ).xy;
#endif
#ifdef USE_ALPHAMAP
	vAlphaMapUv = ( alphaMapTransform * vec3( ALPHAMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_LIGHTMAP
	vLightMapUv = ( lightMapTransform * vec3( LIGHTMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_AOMAP
	vAoMapUv = ( aoMapTransform * vec3( AOMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_BUMPMAP
	vBumpMapUv = ( bumpMapTransform * vec3( BUMPMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_NORMALMAP
	vNormalMapUv = ( normalMapTransform * vec3( NORMALMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_DISPLACEMENTMAP
	vDisplacementMapUv = ( displacementMapTransform * vec3( DISPLACEMENTMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_EMISSIVEMAP
	vEmissiveMapUv = ( emissiveMapTransform * vec3( EMISSIVEMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_METALNESSMAP
	vMetalnessMapUv = ( metalnessMapTransform * vec3( METALNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_ROUGHNESSMAP
	vRoughnessMapUv = ( roughnessMapTransform * vec3( ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_DIFFUSE_ROUGHNESSMAP
	vDiffuseRoughnessMapUv = ( diffuseRoughnessMapTransform * vec3( DIFFUSE_ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_ANISOTROPYMAP
	vAnisotropyMapUv = ( anisotropyMapTransform * vec3( ANISOTROPYMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_CLEARCOATMAP
	vClearcoatMapUv = ( clearcoatMapTransform * vec3( CLEARCOATMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	vClearcoatNormalMapUv = ( clearcoatNormalMapTransform * vec3( CLEARCOAT_NORMALMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	vClearcoatRoughnessMapUv = ( clearcoatRoughnessMapTransform * vec3( CLEARCOAT_ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_IRIDESCENCEMAP
	vIridescenceMapUv = ( iridescenceMapTransform * vec3( IRIDESCENCEMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	vIridescenceThicknessMapUv = ( iridescenceThicknessMapTransform * vec3( IRIDESCENCE_THICKNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SHEEN_COLORMAP
	vSheenColorMapUv = ( sheenColorMapTransform * vec3( SHEEN_COLORMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SHEEN_ROUGHNESSMAP
	vSheenRoughnessMapUv = ( sheenRoughnessMapTransform * vec3( SHEEN_ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SPECULARMAP
	vSpecularMapUv = ( specularMapTransform * vec3( SPECULARMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SPECULAR_COLORMAP
	vSpecularColorMapUv = ( specularColorMapTransform * vec3( SPECULAR_COLORMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SPECULAR_INTENSITYMAP
	vSpecularIntensityMapUv = ( specularIntensityMapTransform * vec3( SPECULAR_INTENSITYMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_TRANSMISSIONMAP
	vTransmissionMapUv = ( transmissionMapTransform * vec3( TRANSMISSIONMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_THICKNESSMAP
	vThicknessMapUv = ( thicknessMapTransform * vec3( THICKNESSMAP_UV, 1 ) ).xy;
#endif`,hx=`#if defined( USE_ENVMAP ) || defined( DISTANCE ) || defined ( USE_SHADOWMAP ) || defined ( USE_TRANSMISSION ) || NUM_SPOT_LIGHT_COORDS > 0
	vec4 worldPosition = vec4( transformed, 1.0 );
	#ifdef USE_BATCHING
		worldPosition = batchingMatrix * worldPosition;
	#endif
	#ifdef USE_INSTANCING
		worldPosition = instanceMatrix * worldPosition;
	#endif
	worldPosition = modelMatrix * worldPosition;
#endif`;const dx=`varying vec2 vUv;
uniform mat3 uvTransform;
void main() {
	vUv = ( uvTransform * vec3( uv, 1 ) ).xy;
	gl_Position = vec4( position.xy, 1.0, 1.0 );
}`,px=`uniform sampler2D t2D;
uniform float backgroundIntensity;
varying vec2 vUv;
void main() {
	vec4 texColor = texture2D( t2D, vUv );
	#ifdef DECODE_VIDEO_TEXTURE
		texColor = vec4( mix( pow( texColor.rgb * 0.9478672986 + vec3( 0.0521327014 ), vec3( 2.4 ) ), texColor.rgb * 0.0773993808, vec3( lessThanEqual( texColor.rgb, vec3( 0.04045 ) ) ) ), texColor.w );
	#endif
	texColor.rgb *= backgroundIntensity;
	gl_FragColor = texColor;
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,mx=`varying vec3 vWorldDirection;
#include <common>
void main() {
	vWorldDirection = transformDirection( position, modelMatrix );
	#include <begin_vertex>
	#include <project_vertex>
	gl_Position.z = gl_Position.w;
}`,gx=`uniform float backgroundBlurriness;
uniform float backgroundIntensity;
uniform mat3 backgroundRotation;
varying vec3 vWorldDirection;
#include <envmap_common_pars_fragment>
void main() {
	#ifdef ENVMAP_TYPE_PMREM
		vec4 texColor = textureLod( envMap, backgroundRotation * vWorldDirection, roughnessToMip( backgroundBlurriness ) );
	#else
		vec4 texColor = textureCube( envMap, backgroundRotation * vWorldDirection );
	#endif
	texColor.rgb *= backgroundIntensity;
	gl_FragColor = texColor;
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,_x=`varying vec3 vWorldDirection;
#include <common>
void main() {
	vWorldDirection = transformDirection( position, modelMatrix );
	#include <begin_vertex>
	#include <project_vertex>
	gl_Position.z = gl_Position.w;
}`,vx=`uniform samplerCube tCube;
uniform float tFlip;
uniform float opacity;
varying vec3 vWorldDirection;
void main() {
	vec4 texColor = textureCube( tCube, vec3( tFlip * vWorldDirection.x, vWorldDirection.yz ) );
	gl_FragColor = texColor;
	gl_FragColor.a *= opacity;
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,xx=`#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
varying vec2 vHighPrecisionZW;
void main() {
	#include <uv_vertex>
	#include <batching_vertex>
	#include <skinbase_vertex>
	#include <morphinstance_vertex>
	#ifdef USE_DISPLACEMENTMAP
		#include <beginnormal_vertex>
		#include <morphnormal_vertex>
		#include <skinnormal_vertex>
	#endif
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vHighPrecisionZW = gl_Position.zw;
}`,Sx=`#if DEPTH_PACKING == 3200
	uniform float opacity;
#endif
#include <common>
#include <packing>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
varying vec2 vHighPrecisionZW;
void main() {
	vec4 diffuseColor = vec4( 1.0 );
	#include <clipping_planes_fragment>
	#if DEPTH_PACKING == 3200
		diffuseColor.a = opacity;
	#endif
	#include <map_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <logdepthbuf_fragment>
	#ifdef USE_REVERSED_DEPTH_BUFFER
		float fragCoordZ = vHighPrecisionZW[ 0 ] / vHighPrecisionZW[ 1 ];
	#else
		float fragCoordZ = 0.5 * vHighPrecisionZW[ 0 ] / vHighPrecisionZW[ 1 ] + 0.5;
	#endif
	#if DEPTH_PACKING == 3200
		gl_FragColor = vec4( vec3( 1.0 - fragCoordZ ), opacity );
	#elif DEPTH_PACKING == 3201
		gl_FragColor = packDepthToRGBA( fragCoordZ );
	#elif DEPTH_PACKING == 3202
		gl_FragColor = vec4( packDepthToRGB( fragCoordZ ), 1.0 );
	#elif DEPTH_PACKING == 3203
		gl_FragColor = vec4( packDepthToRG( fragCoordZ ), 0.0, 1.0 );
	#endif
}`,Mx=`#define DISTANCE
varying vec3 vWorldPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <batching_vertex>
	#include <skinbase_vertex>
	#include <morphinstance_vertex>
	#ifdef USE_DISPLACEMENTMAP
		#include <beginnormal_vertex>
		#include <morphnormal_vertex>
		#include <skinnormal_vertex>
	#endif
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <worldpos_vertex>
	#include <clipping_planes_vertex>
	vWorldPosition = worldPosition.xyz;
}`,yx=`#define DISTANCE
uniform vec3 referencePosition;
uniform float nearDistance;
uniform float farDistance;
varying vec3 vWorldPosition;
#include <common>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( 1.0 );
	#include <clipping_planes_fragment>
	#include <map_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	float dist = length( vWorldPosition - referencePosition );
	dist = ( dist - nearDistance ) / ( farDistance - nearDistance );
	dist = saturate( dist );
	gl_FragColor = vec4( dist, 0.0, 0.0, 1.0 );
}`,Ex=`varying vec3 vWorldDirection;
#include <common>
void main() {
	vWorldDirection = transformDirection( position, modelMatrix );
	#include <begin_vertex>
	#include <project_vertex>
}`,Tx=`uniform sampler2D tEquirect;
varying vec3 vWorldDirection;
#include <common>
void main() {
	vec3 direction = normalize( vWorldDirection );
	vec2 sampleUV = equirectUv( direction );
	gl_FragColor = texture2D( tEquirect, sampleUV );
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,bx=`uniform float scale;
attribute float lineDistance;
varying float vLineDistance;
#include <common>
#include <uv_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	vLineDistance = scale * lineDistance;
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <fog_vertex>
}`,wx=`uniform vec3 diffuse;
uniform float opacity;
uniform float dashSize;
uniform float totalSize;
varying float vLineDistance;
#include <common>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <fog_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	if ( mod( vLineDistance, totalSize ) > dashSize ) {
		discard;
	}
	vec3 outgoingLight = vec3( 0.0 );
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	outgoingLight = diffuseColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
}`,Ax=`#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <envmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#if defined ( USE_ENVMAP ) || defined ( USE_SKINNING )
		#include <beginnormal_vertex>
		#include <morphnormal_vertex>
		#include <skinbase_vertex>
		#include <skinnormal_vertex>
		#include <defaultnormal_vertex>
	#endif
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <worldpos_vertex>
	#include <envmap_vertex>
	#include <fog_vertex>
}`,Rx=`uniform vec3 diffuse;
uniform float opacity;
#ifndef FLAT_SHADED
	varying vec3 vNormal;
#endif
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_pars_fragment>
#include <fog_pars_fragment>
#include <specularmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <specularmap_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	#ifdef USE_LIGHTMAP
		vec4 lightMapTexel = texture2D( lightMap, vLightMapUv );
		reflectedLight.indirectDiffuse += lightMapTexel.rgb * lightMapIntensity * RECIPROCAL_PI;
	#else
		reflectedLight.indirectDiffuse += vec3( 1.0 );
	#endif
	#include <aomap_fragment>
	reflectedLight.indirectDiffuse *= diffuseColor.rgb;
	vec3 outgoingLight = reflectedLight.indirectDiffuse;
	#include <envmap_fragment>
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,Cx=`#define LAMBERT
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <envmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <envmap_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,Px=`#define LAMBERT
uniform vec3 diffuse;
uniform vec3 emissive;
uniform float opacity;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_pars_fragment>
#include <envmap_physical_pars_fragment>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_lambert_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <specularmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <specularmap_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_lambert_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 outgoingLight = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse + totalEmissiveRadiance;
	#include <envmap_fragment>
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,Lx=`#define MATCAP
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <color_pars_vertex>
#include <displacementmap_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <fog_vertex>
	vViewPosition = - mvPosition.xyz;
}`,Dx=`#define MATCAP
uniform vec3 diffuse;
uniform float opacity;
uniform sampler2D matcap;
varying vec3 vViewPosition;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <fog_pars_fragment>
#include <normal_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	vec3 viewDir = normalize( vViewPosition );
	vec3 x = normalize( vec3( viewDir.z, 0.0, - viewDir.x ) );
	vec3 y = cross( viewDir, x );
	vec2 uv = vec2( dot( x, normal ), dot( y, normal ) ) * 0.495 + 0.5;
	#ifdef USE_MATCAP
		vec4 matcapColor = texture2D( matcap, uv );
	#else
		vec4 matcapColor = vec4( vec3( mix( 0.2, 0.8, uv.y ) ), 1.0 );
	#endif
	vec3 outgoingLight = diffuseColor.rgb * matcapColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,Nx=`#define NORMAL
#if defined( FLAT_SHADED ) || defined( USE_BUMPMAP ) || defined( USE_NORMALMAP_TANGENTSPACE )
	varying vec3 vViewPosition;
#endif
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphinstance_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
#if defined( FLAT_SHADED ) || defined( USE_BUMPMAP ) || defined( USE_NORMALMAP_TANGENTSPACE )
	vViewPosition = - mvPosition.xyz;
#endif
}`,Ix=`#define NORMAL
uniform float opacity;
#if defined( FLAT_SHADED ) || defined( USE_BUMPMAP ) || defined( USE_NORMALMAP_TANGENTSPACE )
	varying vec3 vViewPosition;
#endif
#include <uv_pars_fragment>
#include <normal_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( 0.0, 0.0, 0.0, opacity );
	#include <clipping_planes_fragment>
	#include <logdepthbuf_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	gl_FragColor = vec4( normalize( normal ) * 0.5 + 0.5, diffuseColor.a );
	#ifdef OPAQUE
		gl_FragColor.a = 1.0;
	#endif
}`,Ux=`#define PHONG
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <envmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphinstance_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <envmap_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,Fx=`#define PHONG
uniform vec3 diffuse;
uniform vec3 emissive;
uniform vec3 specular;
uniform float shininess;
uniform float opacity;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_pars_fragment>
#include <envmap_physical_pars_fragment>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_phong_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <specularmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <specularmap_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_phong_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 outgoingLight = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse + reflectedLight.directSpecular + reflectedLight.indirectSpecular + totalEmissiveRadiance;
	#include <envmap_fragment>
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,Ox=`#define STANDARD
varying vec3 vViewPosition;
#ifdef USE_TRANSMISSION
	varying vec3 vWorldPosition;
#endif
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
#ifdef USE_TRANSMISSION
	vWorldPosition = worldPosition.xyz;
#endif
}`,Bx=`#define STANDARD
#ifdef PHYSICAL
	#define IOR
	#define USE_SPECULAR
#endif
uniform vec3 diffuse;
uniform vec3 emissive;
uniform float roughness;
uniform float metalness;
uniform float opacity;
#ifdef IOR
	uniform float ior;
#endif
#ifdef USE_SPECULAR
	uniform float specularIntensity;
	uniform vec3 specularColor;
	#ifdef USE_SPECULAR_COLORMAP
		uniform sampler2D specularColorMap;
	#endif
	#ifdef USE_SPECULAR_INTENSITYMAP
		uniform sampler2D specularIntensityMap;
	#endif
#endif
#ifdef USE_CLEARCOAT
	uniform float clearcoat;
	uniform float clearcoatRoughness;
#endif
#ifdef USE_DIFFUSE_ROUGHNESS
	uniform float diffuseRoughness;
	#ifdef USE_DIFFUSE_ROUGHNESSMAP
		uniform sampler2D diffuseRoughnessMap;
	#endif
#endif
#ifdef USE_DISPERSION
	uniform float dispersion;
#endif
#ifdef USE_RETROREFLECTION
	uniform float retroreflectivity;
#endif
#ifdef USE_IRIDESCENCE
	uniform float iridescence;
	uniform float iridescenceIOR;
	uniform float iridescenceThicknessMinimum;
	uniform float iridescenceThicknessMaximum;
#endif
#ifdef USE_SHEEN
	uniform vec3 sheenColor;
	uniform float sheenRoughness;
	#ifdef USE_SHEEN_COLORMAP
		uniform sampler2D sheenColorMap;
	#endif
	#ifdef USE_SHEEN_ROUGHNESSMAP
		uniform sampler2D sheenRoughnessMap;
	#endif
#endif
#ifdef USE_ANISOTROPY
	uniform vec2 anisotropyVector;
	#ifdef USE_ANISOTROPYMAP
		uniform sampler2D anisotropyMap;
	#endif
#endif
varying vec3 vViewPosition;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <iridescence_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_physical_pars_fragment>
#include <fog_pars_fragment>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_physical_pars_fragment>
#include <transmission_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <clearcoat_pars_fragment>
#include <iridescence_pars_fragment>
#include <roughnessmap_pars_fragment>
#include <metalnessmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <roughnessmap_fragment>
	#include <metalnessmap_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <clearcoat_normal_fragment_begin>
	#include <clearcoat_normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_physical_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 totalDiffuse = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse;
	vec3 totalSpecular = reflectedLight.directSpecular + reflectedLight.indirectSpecular;
	#include <transmission_fragment>
	vec3 outgoingLight = totalDiffuse + totalSpecular + totalEmissiveRadiance;
	#ifdef USE_SHEEN
 
		outgoingLight = outgoingLight + sheenSpecularDirect + sheenSpecularIndirect;
 
 	#endif
	#ifdef USE_CLEARCOAT
		float dotNVcc = saturate( dot( geometryClearcoatNormal, geometryViewDir ) );
		vec3 Fcc = F_Schlick( material.clearcoatF0, material.clearcoatF90, dotNVcc );
		outgoingLight = outgoingLight * ( 1.0 - material.clearcoat * Fcc ) + ( clearcoatSpecularDirect + clearcoatSpecularIndirect ) * material.clearcoat;
	#endif
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,zx=`#define TOON
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,kx=`#define TOON
uniform vec3 diffuse;
uniform vec3 emissive;
uniform float opacity;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <gradientmap_pars_fragment>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_toon_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_toon_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 outgoingLight = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse + totalEmissiveRadiance;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,Gx=`uniform float size;
uniform float scale;
#include <common>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
#ifdef USE_POINTS_UV
	varying vec2 vUv;
	uniform mat3 uvTransform;
#endif
void main() {
	#ifdef USE_POINTS_UV
		vUv = ( uvTransform * vec3( uv, 1 ) ).xy;
	#endif
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <project_vertex>
	gl_PointSize = size;
	#ifdef USE_SIZEATTENUATION
		bool isPerspective = isPerspectiveMatrix( projectionMatrix );
		if ( isPerspective ) gl_PointSize *= ( scale / - mvPosition.z );
	#endif
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <worldpos_vertex>
	#include <fog_vertex>
}`,Hx=`uniform vec3 diffuse;
uniform float opacity;
#include <common>
#include <color_pars_fragment>
#include <map_particle_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <fog_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	vec3 outgoingLight = vec3( 0.0 );
	#include <logdepthbuf_fragment>
	#include <map_particle_fragment>
	#include <color_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	outgoingLight = diffuseColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
}`,Vx=`#include <common>
#include <batching_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <shadowmap_pars_vertex>
void main() {
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphinstance_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <worldpos_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,Wx=`uniform vec3 color;
uniform float opacity;
#include <common>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <logdepthbuf_pars_fragment>
#include <shadowmap_pars_fragment>
#include <shadowmask_pars_fragment>
void main() {
	#include <logdepthbuf_fragment>
	gl_FragColor = vec4( color, opacity * ( 1.0 - getShadowMask() ) );
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
}`,Xx=`uniform float rotation;
uniform vec2 center;
#include <common>
#include <uv_pars_vertex>
#include <fog_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	vec4 mvPosition = modelViewMatrix[ 3 ];
	vec2 scale = vec2( length( modelMatrix[ 0 ].xyz ), length( modelMatrix[ 1 ].xyz ) );
	#ifndef USE_SIZEATTENUATION
		bool isPerspective = isPerspectiveMatrix( projectionMatrix );
		if ( isPerspective ) scale *= - mvPosition.z;
	#endif
	vec2 alignedPosition = ( position.xy - ( center - vec2( 0.5 ) ) ) * scale;
	vec2 rotatedPosition;
	rotatedPosition.x = cos( rotation ) * alignedPosition.x - sin( rotation ) * alignedPosition.y;
	rotatedPosition.y = sin( rotation ) * alignedPosition.x + cos( rotation ) * alignedPosition.y;
	mvPosition.xy += rotatedPosition;
	gl_Position = projectionMatrix * mvPosition;
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <fog_vertex>
}`,qx=`uniform vec3 diffuse;
uniform float opacity;
#include <common>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <fog_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	vec3 outgoingLight = vec3( 0.0 );
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	outgoingLight = diffuseColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
}`,ot={alphahash_fragment:p0,alphahash_pars_fragment:m0,alphamap_fragment:g0,alphamap_pars_fragment:_0,alphatest_fragment:v0,alphatest_pars_fragment:x0,aomap_fragment:S0,aomap_pars_fragment:M0,batching_pars_vertex:y0,batching_vertex:E0,begin_vertex:T0,beginnormal_vertex:b0,bsdfs:w0,iridescence_fragment:A0,bumpmap_pars_fragment:R0,clipping_planes_fragment:C0,clipping_planes_pars_fragment:P0,clipping_planes_pars_vertex:L0,clipping_planes_vertex:D0,color_fragment:N0,color_pars_fragment:I0,color_pars_vertex:U0,color_vertex:F0,common:O0,defaultnormal_vertex:B0,displacementmap_pars_vertex:z0,displacementmap_vertex:k0,emissivemap_fragment:G0,emissivemap_pars_fragment:H0,colorspace_fragment:V0,colorspace_pars_fragment:W0,envmap_fragment:X0,envmap_common_pars_fragment:q0,envmap_pars_fragment:Y0,envmap_pars_vertex:$0,envmap_physical_pars_fragment:rv,envmap_vertex:K0,fog_vertex:Z0,fog_pars_vertex:J0,fog_fragment:Q0,fog_pars_fragment:j0,gradientmap_pars_fragment:ev,lightmap_pars_fragment:tv,lights_lambert_fragment:nv,lights_lambert_pars_fragment:iv,lights_pars_begin:sv,lights_toon_fragment:av,lights_toon_pars_fragment:ov,lights_phong_fragment:lv,lights_phong_pars_fragment:cv,lights_physical_fragment:uv,lights_physical_pars_fragment:fv,lights_fragment_begin:hv,lights_fragment_maps:dv,lights_fragment_end:pv,lightprobes_pars_fragment:mv,logdepthbuf_fragment:gv,logdepthbuf_pars_fragment:_v,logdepthbuf_pars_vertex:vv,logdepthbuf_vertex:xv,map_fragment:Sv,map_pars_fragment:Mv,map_particle_fragment:yv,map_particle_pars_fragment:Ev,metalnessmap_fragment:Tv,metalnessmap_pars_fragment:bv,morphinstance_vertex:wv,morphcolor_vertex:Av,morphnormal_vertex:Rv,morphtarget_pars_vertex:Cv,morphtarget_vertex:Pv,normal_fragment_begin:Lv,normal_fragment_maps:Dv,normal_pars_fragment:Nv,normal_pars_vertex:Iv,normal_vertex:Uv,normalmap_pars_fragment:Fv,clearcoat_normal_fragment_begin:Ov,clearcoat_normal_fragment_maps:Bv,clearcoat_pars_fragment:zv,iridescence_pars_fragment:kv,opaque_fragment:Gv,packing:Hv,premultiplied_alpha_fragment:Vv,project_vertex:Wv,dithering_fragment:Xv,dithering_pars_fragment:qv,roughnessmap_fragment:Yv,roughnessmap_pars_fragment:$v,shadowmap_pars_fragment:Kv,shadowmap_pars_vertex:Zv,shadowmap_vertex:Jv,shadowmask_pars_fragment:Qv,skinbase_vertex:jv,skinning_pars_vertex:ex,skinning_vertex:tx,skinnormal_vertex:nx,specularmap_fragment:ix,specularmap_pars_fragment:sx,tonemapping_fragment:rx,tonemapping_pars_fragment:ax,transmission_fragment:ox,transmission_pars_fragment:lx,uv_pars_fragment:cx,uv_pars_vertex:ux,uv_vertex:fx,worldpos_vertex:hx,background_vert:dx,background_frag:px,backgroundCube_vert:mx,backgroundCube_frag:gx,cube_vert:_x,cube_frag:vx,depth_vert:xx,depth_frag:Sx,distance_vert:Mx,distance_frag:yx,equirect_vert:Ex,equirect_frag:Tx,linedashed_vert:bx,linedashed_frag:wx,meshbasic_vert:Ax,meshbasic_frag:Rx,meshlambert_vert:Cx,meshlambert_frag:Px,meshmatcap_vert:Lx,meshmatcap_frag:Dx,meshnormal_vert:Nx,meshnormal_frag:Ix,meshphong_vert:Ux,meshphong_frag:Fx,meshphysical_vert:Ox,meshphysical_frag:Bx,meshtoon_vert:zx,meshtoon_frag:kx,points_vert:Gx,points_frag:Hx,shadow_vert:Vx,shadow_frag:Wx,sprite_vert:Xx,sprite_frag:qx},De={common:{diffuse:{value:new yt(16777215)},opacity:{value:1},map:{value:null},mapTransform:{value:new it},alphaMap:{value:null},alphaMapTransform:{value:new it},alphaTest:{value:0}},specularmap:{specularMap:{value:null},specularMapTransform:{value:new it}},envmap:{envMap:{value:null},envMapRotation:{value:new it},reflectivity:{value:1},ior:{value:1.5},refractionRatio:{value:.98},dfgLUT:{value:null}},aomap:{aoMap:{value:null},aoMapIntensity:{value:1},aoMapTransform:{value:new it}},lightmap:{lightMap:{value:null},lightMapIntensity:{value:1},lightMapTransform:{value:new it}},bumpmap:{bumpMap:{value:null},bumpMapTransform:{value:new it},bumpScale:{value:1}},normalmap:{normalMap:{value:null},normalMapTransform:{value:new it},normalScale:{value:new Ve(1,1)}},displacementmap:{displacementMap:{value:null},displacementMapTransform:{value:new it},displacementScale:{value:1},displacementBias:{value:0}},emissivemap:{emissiveMap:{value:null},emissiveMapTransform:{value:new it}},metalnessmap:{metalnessMap:{value:null},metalnessMapTransform:{value:new it}},roughnessmap:{roughnessMap:{value:null},roughnessMapTransform:{value:new it}},gradientmap:{gradientMap:{value:null}},fog:{fogDensity:{value:25e-5},fogNear:{value:1},fogFar:{value:2e3},fogColor:{value:new yt(16777215)}},lights:{ambientLightColor:{value:[]},lightProbe:{value:[]},sunLights:{value:[],properties:{direction:{},color:{}}},sunLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{}}},sunShadowMatrix:{value:[]},sunShadowCascade:{value:[]},directionalLights:{value:[],properties:{direction:{},color:{}}},directionalLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{}}},directionalShadowMatrix:{value:[]},spotLights:{value:[],properties:{color:{},position:{},direction:{},distance:{},coneCos:{},penumbraCos:{},decay:{}}},spotLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{}}},spotLightMap:{value:[]},spotLightMatrix:{value:[]},pointLights:{value:[],properties:{color:{},position:{},decay:{},distance:{}}},pointLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{},shadowCameraNear:{},shadowCameraFar:{}}},pointShadowMatrix:{value:[]},hemisphereLights:{value:[],properties:{direction:{},skyColor:{},groundColor:{}}},rectAreaLights:{value:[],properties:{color:{},position:{},width:{},height:{}}},ltc_1:{value:null},ltc_2:{value:null},probesSH:{value:[]},probesMin:{value:[]},probesMax:{value:[]},probesResolution:{value:[]}},points:{diffuse:{value:new yt(16777215)},opacity:{value:1},size:{value:1},scale:{value:1},map:{value:null},alphaMap:{value:null},alphaMapTransform:{value:new it},alphaTest:{value:0},uvTransform:{value:new it}},sprite:{diffuse:{value:new yt(16777215)},opacity:{value:1},center:{value:new Ve(.5,.5)},rotation:{value:0},map:{value:null},mapTransform:{value:new it},alphaMap:{value:null},alphaMapTransform:{value:new it},alphaTest:{value:0}}},Ri={basic:{uniforms:In([De.common,De.specularmap,De.envmap,De.aomap,De.lightmap,De.fog]),vertexShader:ot.meshbasic_vert,fragmentShader:ot.meshbasic_frag},lambert:{uniforms:In([De.common,De.specularmap,De.envmap,De.aomap,De.lightmap,De.emissivemap,De.bumpmap,De.normalmap,De.displacementmap,De.fog,De.lights,{emissive:{value:new yt(0)},envMapIntensity:{value:1}}]),vertexShader:ot.meshlambert_vert,fragmentShader:ot.meshlambert_frag},phong:{uniforms:In([De.common,De.specularmap,De.envmap,De.aomap,De.lightmap,De.emissivemap,De.bumpmap,De.normalmap,De.displacementmap,De.fog,De.lights,{emissive:{value:new yt(0)},specular:{value:new yt(1118481)},shininess:{value:30},envMapIntensity:{value:1}}]),vertexShader:ot.meshphong_vert,fragmentShader:ot.meshphong_frag},standard:{uniforms:In([De.common,De.envmap,De.aomap,De.lightmap,De.emissivemap,De.bumpmap,De.normalmap,De.displacementmap,De.roughnessmap,De.metalnessmap,De.fog,De.lights,{emissive:{value:new yt(0)},roughness:{value:1},metalness:{value:0},envMapIntensity:{value:1}}]),vertexShader:ot.meshphysical_vert,fragmentShader:ot.meshphysical_frag},toon:{uniforms:In([De.common,De.aomap,De.lightmap,De.emissivemap,De.bumpmap,De.normalmap,De.displacementmap,De.gradientmap,De.fog,De.lights,{emissive:{value:new yt(0)}}]),vertexShader:ot.meshtoon_vert,fragmentShader:ot.meshtoon_frag},matcap:{uniforms:In([De.common,De.bumpmap,De.normalmap,De.displacementmap,De.fog,{matcap:{value:null}}]),vertexShader:ot.meshmatcap_vert,fragmentShader:ot.meshmatcap_frag},points:{uniforms:In([De.points,De.fog]),vertexShader:ot.points_vert,fragmentShader:ot.points_frag},dashed:{uniforms:In([De.common,De.fog,{scale:{value:1},dashSize:{value:1},totalSize:{value:2}}]),vertexShader:ot.linedashed_vert,fragmentShader:ot.linedashed_frag},depth:{uniforms:In([De.common,De.displacementmap]),vertexShader:ot.depth_vert,fragmentShader:ot.depth_frag},normal:{uniforms:In([De.common,De.bumpmap,De.normalmap,De.displacementmap,{opacity:{value:1}}]),vertexShader:ot.meshnormal_vert,fragmentShader:ot.meshnormal_frag},sprite:{uniforms:In([De.sprite,De.fog]),vertexShader:ot.sprite_vert,fragmentShader:ot.sprite_frag},background:{uniforms:{uvTransform:{value:new it},t2D:{value:null},backgroundIntensity:{value:1}},vertexShader:ot.background_vert,fragmentShader:ot.background_frag},backgroundCube:{uniforms:{envMap:{value:null},backgroundBlurriness:{value:0},backgroundIntensity:{value:1},backgroundRotation:{value:new it}},vertexShader:ot.backgroundCube_vert,fragmentShader:ot.backgroundCube_frag},cube:{uniforms:{tCube:{value:null},tFlip:{value:-1},opacity:{value:1}},vertexShader:ot.cube_vert,fragmentShader:ot.cube_frag},equirect:{uniforms:{tEquirect:{value:null}},vertexShader:ot.equirect_vert,fragmentShader:ot.equirect_frag},distance:{uniforms:In([De.common,De.displacementmap,{referencePosition:{value:new W},nearDistance:{value:1},farDistance:{value:1e3}}]),vertexShader:ot.distance_vert,fragmentShader:ot.distance_frag},shadow:{uniforms:In([De.lights,De.fog,{color:{value:new yt(0)},opacity:{value:1}}]),vertexShader:ot.shadow_vert,fragmentShader:ot.shadow_frag}};Ri.physical={uniforms:In([Ri.standard.uniforms,{clearcoat:{value:0},clearcoatMap:{value:null},clearcoatMapTransform:{value:new it},clearcoatNormalMap:{value:null},clearcoatNormalMapTransform:{value:new it},clearcoatNormalScale:{value:new Ve(1,1)},clearcoatRoughness:{value:0},clearcoatRoughnessMap:{value:null},clearcoatRoughnessMapTransform:{value:new it},diffuseRoughness:{value:0},diffuseRoughnessMap:{value:null},diffuseRoughnessMapTransform:{value:new it},dispersion:{value:0},retroreflectivity:{value:0},iridescence:{value:0},iridescenceMap:{value:null},iridescenceMapTransform:{value:new it},iridescenceIOR:{value:1.3},iridescenceThicknessMinimum:{value:100},iridescenceThicknessMaximum:{value:400},iridescenceThicknessMap:{value:null},iridescenceThicknessMapTransform:{value:new it},sheen:{value:0},sheenColor:{value:new yt(0)},sheenColorMap:{value:null},sheenColorMapTransform:{value:new it},sheenRoughness:{value:1},sheenRoughnessMap:{value:null},sheenRoughnessMapTransform:{value:new it},transmission:{value:0},transmissionMap:{value:null},transmissionMapTransform:{value:new it},transmissionSamplerSize:{value:new Ve},transmissionSamplerMap:{value:null},thickness:{value:0},thicknessMap:{value:null},thicknessMapTransform:{value:new it},attenuationDistance:{value:0},attenuationColor:{value:new yt(0)},specularColor:{value:new yt(1,1,1)},specularColorMap:{value:null},specularColorMapTransform:{value:new it},specularIntensity:{value:1},specularIntensityMap:{value:null},specularIntensityMapTransform:{value:new it},anisotropyVector:{value:new Ve},anisotropyMap:{value:null},anisotropyMapTransform:{value:new it}}]),vertexShader:ot.meshphysical_vert,fragmentShader:ot.meshphysical_frag};const io={r:0,b:0,g:0},Yx=new Wt,Ip=new it;Ip.set(-1,0,0,0,1,0,0,0,1);function $x(n,e,t,i,s,r){const a=new yt(0);let o=s===!0?0:1,l,c,u=null,d=0,f=null;function h(x){let A=x.isScene===!0?x.background:null;if(A&&A.isTexture){const S=x.backgroundBlurriness>0;A=e.get(A,S)}return A}function g(x){let A=!1;const S=h(x);S===null?p(a,o):S&&S.isColor&&(p(S,1),A=!0);const R=n.xr.getEnvironmentBlendMode();R==="additive"?t.buffers.color.setClear(0,0,0,1,r):R==="alpha-blend"&&t.buffers.color.setClear(0,0,0,0,r),(n.autoClear||A)&&(t.buffers.depth.setTest(!0),t.buffers.depth.setMask(!0),t.buffers.color.setMask(!0),n.clear(n.autoClearColor,n.autoClearDepth,n.autoClearStencil))}function M(x,A){const S=h(A);S&&S.isCubeTexture?(c===void 0&&(c=new Ii(new Ea(1,1,1),new zs({name:"BackgroundCubeMaterial",uniforms:br(Ri.backgroundCube.uniforms),vertexShader:Ri.backgroundCube.vertexShader,fragmentShader:Ri.backgroundCube.fragmentShader,side:Bn,depthTest:!1,depthWrite:!1,fog:!1,allowOverride:!1})),c.geometry.deleteAttribute("normal"),c.geometry.deleteAttribute("uv"),c.onBeforeRender=function(R,w,_){this.matrixWorld.copyPosition(_.matrixWorld)},Object.defineProperty(c.material,"envMap",{get:function(){return this.uniforms.envMap.value}}),i.update(c)),c.material.uniforms.envMap.value=S,c.material.uniforms.backgroundBlurriness.value=A.backgroundBlurriness,c.material.uniforms.backgroundIntensity.value=A.backgroundIntensity,c.material.uniforms.backgroundRotation.value.setFromMatrix4(Yx.makeRotationFromEuler(A.backgroundRotation)).transpose(),S.isRenderTargetTexture===!1&&c.material.uniforms.backgroundRotation.value.premultiply(Ip),c.material.toneMapped=mt.getTransfer(S.colorSpace)!==At,(u!==S||d!==S.version||f!==n.toneMapping)&&(c.material.needsUpdate=!0,u=S,d=S.version,f=n.toneMapping),c.layers.enableAll(),x.unshift(c,c.geometry,c.material,0,0,null)):S&&S.isTexture&&(l===void 0&&(l=new Ii(new Yo(2,2),new zs({name:"BackgroundMaterial",uniforms:br(Ri.background.uniforms),vertexShader:Ri.background.vertexShader,fragmentShader:Ri.background.fragmentShader,side:Us,depthTest:!1,depthWrite:!1,fog:!1,allowOverride:!1})),l.geometry.deleteAttribute("normal"),Object.defineProperty(l.material,"map",{get:function(){return this.uniforms.t2D.value}}),i.update(l)),l.material.uniforms.t2D.value=S,l.material.uniforms.backgroundIntensity.value=A.backgroundIntensity,l.material.toneMapped=mt.getTransfer(S.colorSpace)!==At,S.matrixAutoUpdate===!0&&S.updateMatrix(),l.material.uniforms.uvTransform.value.copy(S.matrix),(u!==S||d!==S.version||f!==n.toneMapping)&&(l.material.needsUpdate=!0,u=S,d=S.version,f=n.toneMapping),l.layers.enableAll(),x.unshift(l,l.geometry,l.material,0,0,null))}function p(x,A){x.getRGB(io,Lp(n)),t.buffers.color.setClear(io.r,io.g,io.b,A,r)}function m(){c!==void 0&&(c.geometry.dispose(),c.material.dispose(),c=void 0),l!==void 0&&(l.geometry.dispose(),l.material.dispose(),l=void 0)}return{getClearColor:function(){return a},setClearColor:function(x,A=1){a.set(x),o=A,p(a,o)},getClearAlpha:function(){return o},setClearAlpha:function(x){o=x,p(a,o)},render:g,addToRenderList:M,dispose:m}}function Kx(n,e){const t=n.getParameter(n.MAX_VERTEX_ATTRIBS),i={},s=f(null);let r=s,a=!1;function o(L,G,k,I,V){let Z=!1;const B=d(L,I,k,G);r!==B&&(r=B,c(r.object)),Z=h(L,I,k,V),Z&&g(L,I,k,V),V!==null&&e.update(V,n.ELEMENT_ARRAY_BUFFER),(Z||a)&&(a=!1,S(L,G,k,I),V!==null&&n.bindBuffer(n.ELEMENT_ARRAY_BUFFER,e.get(V).buffer))}function l(){return n.createVertexArray()}function c(L){return n.bindVertexArray(L)}function u(L){return n.deleteVertexArray(L)}function d(L,G,k,I){const V=I.wireframe===!0;let Z=i[G.id];Z===void 0&&(Z={},i[G.id]=Z);const B=L.isInstancedMesh===!0?L.id:0;let ce=Z[B];ce===void 0&&(ce={},Z[B]=ce);let K=ce[k.id];K===void 0&&(K={},ce[k.id]=K);let Q=K[V];return Q===void 0&&(Q=f(l()),K[V]=Q),Q}function f(L){const G=[],k=[],I=[];for(let V=0;V<t;V++)G[V]=0,k[V]=0,I[V]=0;return{geometry:null,program:null,wireframe:!1,newAttributes:G,enabledAttributes:k,attributeDivisors:I,object:L,attributes:{},index:null}}function h(L,G,k,I){const V=r.attributes,Z=G.attributes;let B=0;const ce=k.getAttributes();for(const K in ce)if(ce[K].location>=0){const ie=V[K];let he=Z[K];if(he===void 0&&(K==="instanceMatrix"&&L.instanceMatrix&&(he=L.instanceMatrix),K==="instanceColor"&&L.instanceColor&&(he=L.instanceColor)),ie===void 0||ie.attribute!==he||he&&ie.data!==he.data)return!0;B++}return r.attributesNum!==B||r.index!==I}function g(L,G,k,I){const V={},Z=G.attributes;let B=0;const ce=k.getAttributes();for(const K in ce)if(ce[K].location>=0){let ie=Z[K];ie===void 0&&(K==="instanceMatrix"&&L.instanceMatrix&&(ie=L.instanceMatrix),K==="instanceColor"&&L.instanceColor&&(ie=L.instanceColor));const he={};he.attribute=ie,ie&&ie.data&&(he.data=ie.data),V[K]=he,B++}r.attributes=V,r.attributesNum=B,r.index=I}function M(){const L=r.newAttributes;for(let G=0,k=L.length;G<k;G++)L[G]=0}function p(L){m(L,0)}function m(L,G){const k=r.newAttributes,I=r.enabledAttributes,V=r.attributeDivisors;k[L]=1,I[L]===0&&(n.enableVertexAttribArray(L),I[L]=1),V[L]!==G&&(n.vertexAttribDivisor(L,G),V[L]=G)}function x(){const L=r.newAttributes,G=r.enabledAttributes;for(let k=0,I=G.length;k<I;k++)G[k]!==L[k]&&(n.disableVertexAttribArray(k),G[k]=0)}function A(L,G,k,I,V,Z,B){B===!0?n.vertexAttribIPointer(L,G,k,V,Z):n.vertexAttribPointer(L,G,k,I,V,Z)}function S(L,G,k,I){M();const V=I.attributes,Z=k.getAttributes(),B=G.defaultAttributeValues;for(const ce in Z){const K=Z[ce];if(K.location>=0){let Q=V[ce];if(Q===void 0&&(ce==="instanceMatrix"&&L.instanceMatrix&&(Q=L.instanceMatrix),ce==="instanceColor"&&L.instanceColor&&(Q=L.instanceColor)),Q!==void 0){const ie=Q.normalized,he=Q.itemSize,fe=e.get(Q);if(fe===void 0)continue;const j=fe.buffer,me=fe.type,ve=fe.bytesPerElement,Ae=me===n.INT||me===n.UNSIGNED_INT||Q.gpuType===Tu;if(Q.isInterleavedBufferAttribute){const ye=Q.data,We=ye.isInterleavedBuffer===!0?ye.stride:ye.itemSize,tt=Q.offset;if(ye.isInstancedInterleavedBuffer||ye.isInstancedBufferAttribute){for(let Ge=0;Ge<K.locationSize;Ge++)m(K.location+Ge,ye.meshPerAttribute);L.isInstancedMesh!==!0&&I._maxInstanceCount===void 0&&(I._maxInstanceCount=ye.meshPerAttribute*ye.count)}else for(let Ge=0;Ge<K.locationSize;Ge++)p(K.location+Ge);n.bindBuffer(n.ARRAY_BUFFER,j);for(let Ge=0;Ge<K.locationSize;Ge++)A(K.location+Ge,he/K.locationSize,me,ie,We*ve,(tt+he/K.locationSize*Ge)*ve,Ae)}else{if(Q.isInstancedBufferAttribute){for(let ye=0;ye<K.locationSize;ye++)m(K.location+ye,Q.meshPerAttribute);L.isInstancedMesh!==!0&&I._maxInstanceCount===void 0&&(I._maxInstanceCount=Q.meshPerAttribute*Q.count)}else for(let ye=0;ye<K.locationSize;ye++)p(K.location+ye);n.bindBuffer(n.ARRAY_BUFFER,j);for(let ye=0;ye<K.locationSize;ye++)A(K.location+ye,he/K.locationSize,me,ie,he*ve,he/K.locationSize*ye*ve,Ae)}}else if(B!==void 0){const ie=B[ce];if(ie!==void 0)switch(ie.length){case 2:n.vertexAttrib2fv(K.location,ie);break;case 3:n.vertexAttrib3fv(K.location,ie);break;case 4:n.vertexAttrib4fv(K.location,ie);break;default:n.vertexAttrib1fv(K.location,ie)}}}}x()}function R(){z();for(const L in i){const G=i[L];for(const k in G){const I=G[k];for(const V in I){const Z=I[V];for(const B in Z)u(Z[B].object),delete Z[B];delete I[V]}}delete i[L]}}function w(L){if(i[L.id]===void 0)return;const G=i[L.id];for(const k in G){const I=G[k];for(const V in I){const Z=I[V];for(const B in Z)u(Z[B].object),delete Z[B];delete I[V]}}delete i[L.id]}function _(L){for(const G in i){const k=i[G];for(const I in k){const V=k[I];if(V[L.id]===void 0)continue;const Z=V[L.id];for(const B in Z)u(Z[B].object),delete Z[B];delete V[L.id]}}}function b(L){for(const G in i){const k=i[G],I=L.isInstancedMesh===!0?L.id:0,V=k[I];if(V!==void 0){for(const Z in V){const B=V[Z];for(const ce in B)u(B[ce].object),delete B[ce];delete V[Z]}delete k[I],Object.keys(k).length===0&&delete i[G]}}}function z(){N(),a=!0,r!==s&&(r=s,c(r.object))}function N(){s.geometry=null,s.program=null,s.wireframe=!1}return{setup:o,reset:z,resetDefaultState:N,dispose:R,releaseStatesOfGeometry:w,releaseStatesOfObject:b,releaseStatesOfProgram:_,initAttributes:M,enableAttribute:p,disableUnusedAttributes:x}}function Zx(n,e,t){let i;function s(l){i=l}function r(l,c){n.drawArrays(i,l,c),t.update(c,i,1)}function a(l,c,u){u!==0&&(n.drawArraysInstanced(i,l,c,u),t.update(c,i,u))}function o(l,c,u){if(u===0)return;e.get("WEBGL_multi_draw").multiDrawArraysWEBGL(i,l,0,c,0,u);let f=0;for(let h=0;h<u;h++)f+=c[h];t.update(f,i,1)}this.setMode=s,this.render=r,this.renderInstances=a,this.renderMultiDraw=o}function Jx(n,e,t,i){let s;function r(){if(s!==void 0)return s;if(e.has("EXT_texture_filter_anisotropic")===!0){const _=e.get("EXT_texture_filter_anisotropic");s=n.getParameter(_.MAX_TEXTURE_MAX_ANISOTROPY_EXT)}else s=0;return s}function a(_){return!(_!==Di&&i.convert(_)!==n.getParameter(n.IMPLEMENTATION_COLOR_READ_FORMAT))}function o(_){const b=_===_i&&(e.has("EXT_color_buffer_half_float")||e.has("EXT_color_buffer_float"));return!(_!==ni&&_!==Li&&!b&&i.convert(_)!==n.getParameter(n.IMPLEMENTATION_COLOR_READ_TYPE))}function l(_){if(_==="highp"){if(n.getShaderPrecisionFormat(n.VERTEX_SHADER,n.HIGH_FLOAT).precision>0&&n.getShaderPrecisionFormat(n.FRAGMENT_SHADER,n.HIGH_FLOAT).precision>0)return"highp";_="mediump"}return _==="mediump"&&n.getShaderPrecisionFormat(n.VERTEX_SHADER,n.MEDIUM_FLOAT).precision>0&&n.getShaderPrecisionFormat(n.FRAGMENT_SHADER,n.MEDIUM_FLOAT).precision>0?"mediump":"lowp"}let c=t.precision!==void 0?t.precision:"highp";const u=l(c);u!==c&&(Je("WebGLRenderer:",c,"not supported, using",u,"instead."),c=u);const d=t.reversedDepthBuffer===!0&&e.has("EXT_clip_control"),f=t.logarithmicDepthBuffer===!0&&d===!1;t.reversedDepthBuffer===!0&&d===!1&&Je("WebGLRenderer: Unable to use reversed depth buffer due to missing EXT_clip_control extension. Fallback to default depth buffer."),t.logarithmicDepthBuffer===!0&&d===!0&&Je("WebGLRenderer: Logarithmic depth buffer is ignored when reversed depth buffer is enabled.");const h=n.getParameter(n.MAX_TEXTURE_IMAGE_UNITS),g=n.getParameter(n.MAX_VERTEX_TEXTURE_IMAGE_UNITS),M=n.getParameter(n.MAX_TEXTURE_SIZE),p=n.getParameter(n.MAX_CUBE_MAP_TEXTURE_SIZE),m=n.getParameter(n.MAX_VERTEX_ATTRIBS),x=n.getParameter(n.MAX_VERTEX_UNIFORM_VECTORS),A=n.getParameter(n.MAX_VARYING_VECTORS),S=n.getParameter(n.MAX_FRAGMENT_UNIFORM_VECTORS),R=n.getParameter(n.MAX_SAMPLES),w=n.getParameter(n.SAMPLES);return{isWebGL2:!0,getMaxAnisotropy:r,getMaxPrecision:l,textureFormatReadable:a,textureTypeReadable:o,precision:c,logarithmicDepthBuffer:f,reversedDepthBuffer:d,maxTextures:h,maxVertexTextures:g,maxTextureSize:M,maxCubemapSize:p,maxAttributes:m,maxVertexUniforms:x,maxVaryings:A,maxFragmentUniforms:S,maxSamples:R,samples:w}}function Qx(n){const e=this;let t=null,i=0,s=!1,r=!1;const a=new hs,o=new it,l={value:null,needsUpdate:!1};this.uniform=l,this.numPlanes=0,this.numIntersection=0,this.init=function(d,f){const h=d.length!==0||f||i!==0||s;return s=f,i=d.length,h},this.beginShadows=function(){r=!0,u(null)},this.endShadows=function(){r=!1},this.setGlobalState=function(d,f){t=u(d,f,0)},this.setState=function(d,f,h){const g=d.clippingPlanes,M=d.clipIntersection,p=d.clipShadows,m=n.get(d);if(!s||g===null||g.length===0||r&&!p)r?u(null):c();else{const x=r?0:i,A=x*4;let S=m.clippingState||null;l.value=S,S=u(g,f,A,h);for(let R=0;R!==A;++R)S[R]=t[R];m.clippingState=S,this.numIntersection=M?this.numPlanes:0,this.numPlanes+=x}};function c(){l.value!==t&&(l.value=t,l.needsUpdate=i>0),e.numPlanes=i,e.numIntersection=0}function u(d,f,h,g){const M=d!==null?d.length:0;let p=null;if(M!==0){if(p=l.value,g!==!0||p===null){const m=h+M*4,x=f.matrixWorldInverse;o.getNormalMatrix(x),(p===null||p.length<m)&&(p=new Float32Array(m));for(let A=0,S=h;A!==M;++A,S+=4)a.copy(d[A]).applyMatrix4(x,o),a.normal.toArray(p,S),p[S+3]=a.constant}l.value=p,l.needsUpdate=!0}return e.numPlanes=M,e.numIntersection=0,p}}class Fu extends ii{constructor(e=1,t={}){super(e,e,t),this.isWebGLCubeRenderTarget=!0;const i={width:e,height:e,depth:1},s=[i,i,i,i,i,i];this.texture=new xp(s),this._setTextureOptions(t),this.texture.isRenderTargetTexture=!0}fromEquirectangularTexture(e,t){this.texture.type=t.type,this.texture.colorSpace=t.colorSpace,this.texture.generateMipmaps=t.generateMipmaps,this.texture.minFilter=t.minFilter,this.texture.magFilter=t.magFilter;const i={uniforms:{tEquirect:{value:null}},vertexShader:`

				varying vec3 vWorldDirection;

				vec3 transformDirection( in vec3 dir, in mat4 matrix ) {

					return normalize( ( matrix * vec4( dir, 0.0 ) ).xyz );

				}

				void main() {

					vWorldDirection = transformDirection( position, modelMatrix );

					#include <begin_vertex>
					#include <project_vertex>

				}
			`,fragmentShader:`

				uniform sampler2D tEquirect;

				varying vec3 vWorldDirection;

				#include <common>

				void main() {

					vec3 direction = normalize( vWorldDirection );

					vec2 sampleUV = equirectUv( direction );

					gl_FragColor = texture2D( tEquirect, sampleUV );

				}
			`},s=new Ea(5,5,5),r=new zs({name:"CubemapFromEquirect",uniforms:br(i.uniforms),vertexShader:i.vertexShader,fragmentShader:i.fragmentShader,side:Bn,blending:gr});r.uniforms.tEquirect.value=t;const a=new Ii(s,r),o=t.minFilter;return t.minFilter===ms&&(t.minFilter=On),new iu(1,10,this).update(e,a),t.minFilter=o,a.geometry.dispose(),a.material.dispose(),this}clear(e,t=!0,i=!0,s=!0){const r=e.getRenderTarget();for(let a=0;a<6;a++)e.setRenderTarget(this,a),e.clear(t,i,s);e.setRenderTarget(r)}}const dh=256,jx=3,eS=20,Up=256,Fp=16,tS=3,nS=new W,iS=new yt;class zo{constructor(e){this._renderer=e,this._cubeSize=0,this._sourceTarget=null,this._cubeCamera=new iu(1,10,null),this._boxMesh=new Ii(new Ea(5,5,5),null),this._cubemapMaterial=null,this._equirectMaterial=null,this._blurMaterial=null,this._ggxMaterial=null,this._integrationMaterial=null}fromScene(e,t=0,i=.1,s=100,r={}){const{size:a=256,position:o=nS}=r,l=this._renderer;this._setSize(a);const c=this._allocateTarget(),u=this._getSourceTarget(!0);t>0&&(u.texture.mipmapsAutoUpdate=!1);const d=l.autoClear,f=l.autoClearColor,h=l.autoClearDepth,g=l.autoClearStencil,M=e.background;l.autoClear=!0,l.autoClearColor=!0,l.autoClearDepth=!0,l.autoClearStencil=!0,M===null&&(e.background=l.getClearColor(iS));const p=new iu(i,s,u);return p.position.copy(o),p.update(l,e),l.autoClear=d,l.autoClearColor=f,l.autoClearDepth=h,l.autoClearStencil=g,e.background=M,t>0&&(u.texture.mipmapsAutoUpdate=!0,this._blur(c,t)),this._applyPMREM(c),c}fromEquirectangular(e,t=null){return this._fromTexture(e,t)}fromCubemap(e,t=null){return this._fromTexture(e,t)}compileCubemapShader(){this._cubemapMaterial===null&&(this._cubemapMaterial=gh(),this._compileMaterial(this._cubemapMaterial))}compileEquirectangularShader(){this._equirectMaterial===null&&(this._equirectMaterial=mh(),this._compileMaterial(this._equirectMaterial))}dispose(){this._sourceTarget!==null&&this._sourceTarget.dispose(),this._cubemapMaterial!==null&&this._cubemapMaterial.dispose(),this._equirectMaterial!==null&&this._equirectMaterial.dispose(),this._blurMaterial!==null&&this._blurMaterial.dispose(),this._ggxMaterial!==null&&this._ggxMaterial.dispose(),this._integrationMaterial!==null&&this._integrationMaterial.dispose(),this._boxMesh.geometry.dispose()}static lodToRoughness(e,t){return t>0?1-Math.sqrt(1-e/t):0}_setSize(e){this._cubeSize=Math.max(dh,jg(e))}_fromTexture(e,t){e.mapping===Mr||e.mapping===da?this._setSize(e.image.length===0?dh:e.image[0].width||e.image[0].image.width):this._setSize(e.image.width/4);const i=t||this._allocateTarget();return this._textureToCubemap(e),this._applyPMREM(i),i}_allocateTarget(){const e=this._cubeSize,t=ph(e,!1,!1),i=Math.log2(e)-jx;for(let s=0;s<=i;s++)t.texture.mipmaps.push({width:e>>s,height:e>>s});return t.texture.name="PMREM",t.texture.isPMREMTexture=!0,t}_getSourceTarget(e=!1){const t=this._cubeSize,i=this._sourceTarget;return(i===null||i.width!==t||e&&i.depthBuffer===!1)&&(i!==null&&i.dispose(),this._sourceTarget=ph(t,!0,e)),this._sourceTarget}_compileMaterial(e){this._boxMesh.material=e,this._renderer.compile(this._boxMesh,this._cubeCamera.children[0])}_renderCube(e,t,i){const s=this._boxMesh,r=this._cubeCamera;s.material=i,r.renderTarget=e,r.activeMipmapLevel=t;const a=e.width>>t;e.viewport.set(0,0,a,a),r.update(this._renderer,s),e.viewport.set(0,0,e.width,e.height)}_textureToCubemap(e){let t;e.mapping===Mr||e.mapping===da?(this._cubemapMaterial===null&&(this._cubemapMaterial=gh()),t=this._cubemapMaterial,t.uniforms.flipEnvMap.value=e.isRenderTargetTexture===!1?-1:1):(this._equirectMaterial===null&&(this._equirectMaterial=mh()),t=this._equirectMaterial),t.uniforms.envMap.value=e,this._renderCube(this._getSourceTarget(),0,t)}_applyPMREM(e){this._ggxMaterial===null&&(this._ggxMaterial=sS(),this._integrationMaterial=rS());const t=this._cubeSize,i=e.texture.mipmaps.length-1,s=this._ggxMaterial.uniforms;s.envMap.value=this._sourceTarget.texture;const r=this._integrationMaterial.uniforms;r.envMap.value=this._sourceTarget.texture,r.sourceLod.value=Math.log2(t/Fp);for(let a=0;a<=i;a++){const o=zo.lodToRoughness(a,i);if(a>i-tS)r.roughness.value=o,this._renderCube(e,a,this._integrationMaterial);else{const l=o>0?Math.log2(t)+.5*Math.log2(6/(Up*Math.pow(o,4)))+.5:0;s.roughness.value=o,s.lodBias.value=l,this._renderCube(e,a,this._ggxMaterial)}}}_blur(e,t){this._blurMaterial===null&&(this._blurMaterial=aS());const i=this._blurMaterial,s=i.uniforms,r=this._sourceTarget;s.sigma.value=Math.min(t,Math.PI)/Math.SQRT2,s.envMap.value=r.texture,this._renderCube(e,0,i),s.envMap.value=e.texture,this._renderCube(r,0,i)}}function ph(n,e,t){return new Fu(n,{minFilter:ms,generateMipmaps:e,type:_i,colorSpace:Lo,depthBuffer:t})}function Ta(n,e,t){return new zs({name:n,uniforms:e,vertexShader:ot.cube_vert,fragmentShader:t,side:Bn,blending:gr,depthTest:!1,depthWrite:!1})}function sS(){return Ta("PMREMGGXConvolution",{envMap:{value:null},roughness:{value:0},lodBias:{value:0}},`

		#define GGX_SAMPLES ${Up}u

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float roughness;
		uniform float lodBias;

		#include <common>

		// Van der Corput radical inverse
		float radicalInverse_VdC( uint bits ) {

			bits = ( bits << 16u ) | ( bits >> 16u );
			bits = ( ( bits & 0x55555555u ) << 1u ) | ( ( bits & 0xAAAAAAAAu ) >> 1u );
			bits = ( ( bits & 0x33333333u ) << 2u ) | ( ( bits & 0xCCCCCCCCu ) >> 2u );
			bits = ( ( bits & 0x0F0F0F0Fu ) << 4u ) | ( ( bits & 0xF0F0F0F0u ) >> 4u );
			bits = ( ( bits & 0x00FF00FFu ) << 8u ) | ( ( bits & 0xFF00FF00u ) >> 8u );
			return float( bits ) * 2.3283064365386963e-10; // / 0x100000000

		}

		// Hammersley sequence
		vec2 hammersley( uint i, uint N ) {

			return vec2( float( i ) / float( N ), radicalInverse_VdC( i ) );

		}

		void main() {

			vec3 N = normalize( vWorldDirection );

			// For very low roughness, just sample the environment directly
			if ( roughness < 0.001 ) {

				gl_FragColor = vec4( textureLod( envMap, N, 0.0 ).rgb, 1.0 );
				return;

			}

			float alpha = roughness * roughness;
			float alpha2 = alpha * alpha;

			// Tangent space basis for VNDF sampling
			vec3 up = abs( N.z ) < 0.999 ? vec3( 0.0, 0.0, 1.0 ) : vec3( 1.0, 0.0, 0.0 );
			vec3 tangent = normalize( cross( up, N ) );
			vec3 bitangent = cross( N, tangent );

			vec3 prefilteredColor = vec3( 0.0 );
			float totalWeight = 0.0;

			for ( uint i = 0u; i < GGX_SAMPLES; i ++ ) {

				vec2 Xi = hammersley( i, GGX_SAMPLES );

				// With V = N, sample the reflected direction directly.
				float invQ = 1.0 / ( 1.0 - Xi.x + alpha2 * Xi.x );
				float NdotL = ( 1.0 - Xi.x - alpha2 * Xi.x ) * invQ;

				if ( NdotL > 0.0 ) {

					float phi = 2.0 * PI * Xi.y;
					float sinTheta = 2.0 * alpha * sqrt( Xi.x * ( 1.0 - Xi.x ) ) * invQ;
					vec3 L = N * NdotL + ( tangent * cos( phi ) + bitangent * sin( phi ) ) * sinTheta;

					// Match the source mip to the sample's solid angle. The terms
					// independent of the sample are precomputed in lodBias.
					float d = alpha2 * invQ;
					float lod = max( log2( d ) + lodBias, 0.0 );

					// Weight by NdotL for the split-sum approximation
					prefilteredColor += textureLod( envMap, L, lod ).rgb * NdotL;
					totalWeight += NdotL;

				}

			}

			gl_FragColor = vec4( prefilteredColor / totalWeight, 1.0 );

		}
	`)}function rS(){return Ta("PMREMGGXIntegration",{envMap:{value:null},roughness:{value:0},sourceLod:{value:0},sourceSize:{value:Fp}},`

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float roughness;
		uniform float sourceLod;
		uniform int sourceSize;

		void main() {

			vec3 N = normalize( vWorldDirection );

			float alpha = roughness * roughness;
			float alpha2 = alpha * alpha;

			float texelSize = 2.0 / float( sourceSize );

			vec3 prefilteredColor = vec3( 0.0 );
			float totalWeight = 0.0;

			// Pair opposite texels: only the one in N's hemisphere contributes.
			for ( int face = 0; face < 3; face ++ ) {

				for ( int y = 0; y < sourceSize; y ++ ) {

					for ( int x = 0; x < sourceSize; x ++ ) {

						vec2 uv = ( vec2( x, y ) + 0.5 ) * texelSize - 1.0;
						vec3 texelDirection = face == 0 ? vec3( 1.0, uv ) : ( face == 1 ? vec3( uv.x, 1.0, uv.y ) : vec3( uv, 1.0 ) );

						float invDistance = inversesqrt( 1.0 + dot( uv, uv ) );
						float NdotL = dot( N, texelDirection );
						texelDirection *= NdotL < 0.0 ? - 1.0 : 1.0;
						NdotL = abs( NdotL ) * invDistance;

						// With V = N, NdotH squared is ( 1 + NdotL ) / 2. Common factors
						// in the GGX distribution and texel solid angle cancel when normalized.
						float d = 1.0 + alpha2 + ( alpha2 - 1.0 ) * NdotL;
						float weight = NdotL * invDistance * invDistance * invDistance / ( d * d );

						prefilteredColor += textureLod( envMap, texelDirection, sourceLod ).rgb * weight;
						totalWeight += weight;

					}

				}

			}

			gl_FragColor = vec4( prefilteredColor / totalWeight, 1.0 );

		}
	`)}function aS(){return Ta("PMREMSphericalGaussianBlur",{envMap:{value:null},sigma:{value:0}},`

		#define SAMPLES ${eS}
		#define GOLDEN_ANGLE 2.39996322973

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float sigma;

		#include <common>

		void main() {

			vec3 outputDirection = normalize( vWorldDirection );

			vec3 up = abs( outputDirection.z ) < 0.999 ? vec3( 0.0, 0.0, 1.0 ) : vec3( 1.0, 0.0, 0.0 );
			vec3 tangent = normalize( cross( up, outputDirection ) );
			vec3 bitangent = cross( outputDirection, tangent );

			// Truncate the kernel at three standard deviations or at the antipode.
			float thetaMax = min( 3.0 * sigma, PI );
			float truncation = 1.0 - exp( - 0.5 * thetaMax * thetaMax / ( sigma * sigma ) );

			vec3 accumColor = vec3( 0.0 );
			float accumWeight = 0.0;

			for ( int i = 0; i < SAMPLES; i ++ ) {

				// Stratified inverse-CDF sampling of the Gaussian, placed on a golden-angle spiral.
				float stratum = ( float( i ) + 0.5 ) / float( SAMPLES );
				float theta = sigma * sqrt( - 2.0 * log( 1.0 - stratum * truncation ) );
				float phi = float( i ) * GOLDEN_ANGLE;

				vec3 offset = cos( phi ) * tangent + sin( phi ) * bitangent;
				vec3 sampleDirection = cos( theta ) * outputDirection + sin( theta ) * offset;

				// Correct the planar sample density to solid angle.
				float weight = sin( theta ) / theta;

				accumColor += weight * textureLod( envMap, sampleDirection, 0.0 ).rgb;
				accumWeight += weight;

			}

			gl_FragColor = vec4( accumColor / accumWeight, 1.0 );

		}
	`)}function mh(){return Ta("PMREMEquirectangularToCubemap",{envMap:{value:null}},`

		varying vec3 vWorldDirection;

		uniform sampler2D envMap;

		#include <common>

		void main() {

			// Average four subpixel samples to preserve small, bright features.
			vec3 direction = normalize( vWorldDirection );
			vec3 dx = dFdx( direction ) * 0.25;
			vec3 dy = dFdy( direction ) * 0.25;

			vec3 color = textureLod( envMap, equirectUv( normalize( direction - dx - dy ) ), 0.0 ).rgb;
			color += textureLod( envMap, equirectUv( normalize( direction + dx - dy ) ), 0.0 ).rgb;
			color += textureLod( envMap, equirectUv( normalize( direction - dx + dy ) ), 0.0 ).rgb;
			color += textureLod( envMap, equirectUv( normalize( direction + dx + dy ) ), 0.0 ).rgb;
			gl_FragColor = vec4( color * 0.25, 1.0 );

		}
	`)}function gh(){return Ta("PMREMCubemapToCubemap",{envMap:{value:null},flipEnvMap:{value:-1}},`

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float flipEnvMap;

		void main() {

			gl_FragColor = vec4( textureCube( envMap, vec3( flipEnvMap * vWorldDirection.x, vWorldDirection.yz ) ).rgb, 1.0 );

		}
	`)}function oS(n){let e=new WeakMap,t=new WeakMap,i=null;function s(f,h=!1){return f==null?null:h?a(f):r(f)}function r(f){if(f&&f.isTexture){const h=f.mapping;if(h===gl||h===_l)if(e.has(f)){const g=e.get(f).texture;return o(g,f.mapping)}else{const g=f.image;if(g&&g.height>0){const M=new Fu(g.height);return M.fromEquirectangularTexture(n,f),e.set(f,M),f.addEventListener("dispose",c),o(M.texture,f.mapping)}else return null}}return f}function a(f){if(f&&f.isTexture&&f.isPMREMTexture!==!0){const h=f.mapping,g=h===gl||h===_l,M=h===Mr||h===da;if(g||M){let p=t.get(f);const m=p!==void 0?p.texture.pmremVersion:0;if(f.isRenderTargetTexture&&f.pmremVersion!==m)return i===null&&(i=new zo(n)),p=g?i.fromEquirectangular(f,p):i.fromCubemap(f,p),p.texture.pmremVersion=f.pmremVersion,t.set(f,p),p.texture;if(p!==void 0)return p.texture;{const x=f.image;return g&&x&&x.height>0||M&&x&&l(x)?(i===null&&(i=new zo(n)),p=g?i.fromEquirectangular(f):i.fromCubemap(f),p.texture.pmremVersion=f.pmremVersion,t.set(f,p),f.addEventListener("dispose",u),p.texture):null}}}return f}function o(f,h){return h===gl?f.mapping=Mr:h===_l&&(f.mapping=da),f}function l(f){let h=0;const g=6;for(let M=0;M<g;M++)f[M]!==void 0&&h++;return h===g}function c(f){const h=f.target;h.removeEventListener("dispose",c);const g=e.get(h);g!==void 0&&(e.delete(h),g.dispose())}function u(f){const h=f.target;h.removeEventListener("dispose",u);const g=t.get(h);g!==void 0&&(t.delete(h),g.dispose())}function d(){e=new WeakMap,t=new WeakMap,i!==null&&(i.dispose(),i=null)}return{get:s,dispose:d}}function lS(n){const e={};function t(i){if(e[i]!==void 0)return e[i];const s=n.getExtension(i);return e[i]=s,s}return{has:function(i){return t(i)!==null},init:function(){t("EXT_color_buffer_float"),t("WEBGL_clip_cull_distance"),t("OES_texture_float_linear"),t("EXT_color_buffer_half_float"),t("WEBGL_multisampled_render_to_texture"),t("WEBGL_render_shared_exponent")},get:function(i){const s=t(i);return s===null&&Mo("WebGLRenderer: "+i+" extension not supported."),s}}}function cS(n,e,t,i){const s={},r=new WeakMap,a=new FinalizationRegistry(g=>delete s[g]);function o(g){l(g.target)}function l(g){g.index!==null&&e.remove(g.index);for(const p in g.attributes)e.remove(g.attributes[p]);g.removeEventListener("dispose",o),delete s[g.id],a.unregister(g);const M=r.get(g);M&&(e.remove(M),r.delete(g)),i.releaseStatesOfGeometry(g),g.isInstancedBufferGeometry===!0&&delete g._maxInstanceCount,t.memory.geometries--}function c(g,M){return s[M.id]!==void 0||(M.addEventListener("dispose",o),s[M.id]=new WeakRef(M),a.register(M,M.id,M),t.memory.geometries++),M}function u(g){const M=g.attributes;for(const p in M)e.update(M[p],n.ARRAY_BUFFER)}function d(g){const M=g.index,p=g.attributes.position;let m=0;if(p===void 0)return;const x=M!==null?M.array.length:p.array.length/3-1,A=p.count>=65535?mp:pp,S=new A(Math.ceil(x/3)*6,1),R=S.array;if(M!==null){const _=M.array;m=M.version;for(let b=0,z=0;b<x;b+=3){const N=_[b+0],L=_[b+1],G=_[b+2];R[z++]=N,R[z++]=L,R[z++]=L,R[z++]=G,R[z++]=G,R[z++]=N}}else{m=p.version;for(let _=0,b=0;_<x;_+=3){const z=_+0,N=_+1,L=_+2;R[b++]=z,R[b++]=N,R[b++]=N,R[b++]=L,R[b++]=L,R[b++]=z}}S.version=m;const w=r.get(g);w&&e.remove(w),r.set(g,S)}function f(g){const M=r.get(g);if(M){const p=g.index;p!==null&&M.version<p.version&&d(g)}else d(g);return r.get(g)}function h(){for(const g in s){const M=s[g].deref();M!==void 0&&l(M)}}return{get:c,update:u,getWireframeAttribute:f,dispose:h}}function uS(n,e,t){let i;function s(d){i=d}let r,a;function o(d){r=d.type,a=d.bytesPerElement}function l(d,f){n.drawElements(i,f,r,d*a),t.update(f,i,1)}function c(d,f,h){h!==0&&(n.drawElementsInstanced(i,f,r,d*a,h),t.update(f,i,h))}function u(d,f,h){if(h===0)return;e.get("WEBGL_multi_draw").multiDrawElementsWEBGL(i,f,0,r,d,0,h);let M=0;for(let p=0;p<h;p++)M+=f[p];t.update(M,i,1)}this.setMode=s,this.setIndex=o,this.render=l,this.renderInstances=c,this.renderMultiDraw=u}function fS(n){const e={geometries:0,textures:0},t={frame:0,calls:0,triangles:0,points:0,lines:0};function i(r,a,o){switch(t.calls++,a){case n.TRIANGLES:t.triangles+=o*(r/3);break;case n.LINES:t.lines+=o*(r/2);break;case n.LINE_STRIP:t.lines+=o*(r-1);break;case n.LINE_LOOP:t.lines+=o*r;break;case n.POINTS:t.points+=o*r;break;default:Mt("WebGLInfo: Unknown draw mode:",a);break}}function s(){t.calls=0,t.triangles=0,t.points=0,t.lines=0}return{memory:e,render:t,programs:null,autoReset:!0,reset:s,update:i}}function hS(n,e,t){const i=new WeakMap,s=new ln;function r(a,o,l){const c=a.morphTargetInfluences,u=o.morphAttributes.position||o.morphAttributes.normal||o.morphAttributes.color,d=u!==void 0?u.length:0;let f=i.get(o);if(f===void 0||f.count!==d){let N=function(){b.dispose(),i.delete(o),o.removeEventListener("dispose",N)};var h=N;f!==void 0&&f.texture.dispose();const g=o.morphAttributes.position!==void 0,M=o.morphAttributes.normal!==void 0,p=o.morphAttributes.color!==void 0,m=o.morphAttributes.position||[],x=o.morphAttributes.normal||[],A=o.morphAttributes.color||[];let S=0;g===!0&&(S=1),M===!0&&(S=2),p===!0&&(S=3);let R=o.attributes.position.count*S,w=1;R>e.maxTextureSize&&(w=Math.ceil(R/e.maxTextureSize),R=e.maxTextureSize);const _=new Float32Array(R*w*4*d),b=new fp(_,R,w,d);b.type=Li,b.needsUpdate=!0;const z=S*4;for(let L=0;L<d;L++){const G=m[L],k=x[L],I=A[L],V=R*w*4*L;for(let Z=0;Z<G.count;Z++){const B=Z*z;g===!0&&(s.fromBufferAttribute(G,Z),_[V+B+0]=s.x,_[V+B+1]=s.y,_[V+B+2]=s.z,_[V+B+3]=0),M===!0&&(s.fromBufferAttribute(k,Z),_[V+B+4]=s.x,_[V+B+5]=s.y,_[V+B+6]=s.z,_[V+B+7]=0),p===!0&&(s.fromBufferAttribute(I,Z),_[V+B+8]=s.x,_[V+B+9]=s.y,_[V+B+10]=s.z,_[V+B+11]=I.itemSize===4?s.w:1)}}f={count:d,texture:b,size:new Ve(R,w)},i.set(o,f),o.addEventListener("dispose",N)}if(a.isInstancedMesh===!0&&a.morphTexture!==null)l.getUniforms().setValue(n,"morphTexture",a.morphTexture,t);else{let g=0;for(let p=0;p<c.length;p++)g+=c[p];const M=o.morphTargetsRelative?1:1-g;l.getUniforms().setValue(n,"morphTargetBaseInfluence",M),l.getUniforms().setValue(n,"morphTargetInfluences",c)}l.getUniforms().setValue(n,"morphTargetsTexture",f.texture,t),l.getUniforms().setValue(n,"morphTargetsTextureSize",f.size)}return{update:r}}function dS(n,e,t,i,s){let r=new WeakMap;function a(c){const u=s.render.frame,d=c.geometry,f=e.get(c,d);if(r.get(f)!==u&&(e.update(f),r.set(f,u)),c.isInstancedMesh&&(c.hasEventListener("dispose",l)===!1&&c.addEventListener("dispose",l),r.get(c)!==u&&(t.update(c.instanceMatrix,n.ARRAY_BUFFER),c.instanceColor!==null&&t.update(c.instanceColor,n.ARRAY_BUFFER),r.set(c,u))),c.isSkinnedMesh){const h=c.skeleton;r.get(h)!==u&&(h.update(),r.set(h,u))}return f}function o(){r=new WeakMap}function l(c){const u=c.target;u.removeEventListener("dispose",l),i.releaseStatesOfObject(u),t.remove(u.instanceMatrix),u.instanceColor!==null&&t.remove(u.instanceColor)}return{update:a,dispose:o}}const pS={[qd]:"LINEAR_TONE_MAPPING",[Yd]:"REINHARD_TONE_MAPPING",[$d]:"CINEON_TONE_MAPPING",[Kd]:"ACES_FILMIC_TONE_MAPPING",[Jd]:"AGX_TONE_MAPPING",[Qd]:"NEUTRAL_TONE_MAPPING",[Zd]:"CUSTOM_TONE_MAPPING"};function mS(n,e,t,i,s,r){const a=new ii(e,t,{type:n,depthBuffer:s,stencilBuffer:r,samples:i?4:0,storeMultisampledDepthBuffer:!1,storeMultisampledStencilBuffer:!1,resolveDepthBuffer:!1,resolveStencilBuffer:!1});let o=null,l=null,c=null;const u=new si;u.setAttribute("position",new Yn([-1,3,0,-1,-1,0,3,-1,0],3)),u.setAttribute("uv",new Yn([0,2,0,0,2,0],2));const d=new nu({uniforms:{tDiffuse:{value:null}},vertexShader:`
			precision highp float;

			uniform mat4 modelViewMatrix;
			uniform mat4 projectionMatrix;

			attribute vec3 position;
			attribute vec2 uv;

			varying vec2 vUv;

			void main() {
				vUv = uv;
				gl_Position = projectionMatrix * modelViewMatrix * vec4( position, 1.0 );
			}`,fragmentShader:`
			precision highp float;

			uniform sampler2D tDiffuse;

			varying vec2 vUv;

			#include <tonemapping_pars_fragment>
			#include <colorspace_pars_fragment>

			void main() {
				gl_FragColor = texture2D( tDiffuse, vUv );

				#ifdef LINEAR_TONE_MAPPING
					gl_FragColor.rgb = LinearToneMapping( gl_FragColor.rgb );
				#elif defined( REINHARD_TONE_MAPPING )
					gl_FragColor.rgb = ReinhardToneMapping( gl_FragColor.rgb );
				#elif defined( CINEON_TONE_MAPPING )
					gl_FragColor.rgb = CineonToneMapping( gl_FragColor.rgb );
				#elif defined( ACES_FILMIC_TONE_MAPPING )
					gl_FragColor.rgb = ACESFilmicToneMapping( gl_FragColor.rgb );
				#elif defined( AGX_TONE_MAPPING )
					gl_FragColor.rgb = AgXToneMapping( gl_FragColor.rgb );
				#elif defined( NEUTRAL_TONE_MAPPING )
					gl_FragColor.rgb = NeutralToneMapping( gl_FragColor.rgb );
				#elif defined( CUSTOM_TONE_MAPPING )
					gl_FragColor.rgb = CustomToneMapping( gl_FragColor.rgb );
				#endif

				#ifdef SRGB_TRANSFER
					gl_FragColor = sRGBTransferOETF( gl_FragColor );
				#endif
			}`,depthTest:!1,depthWrite:!1}),f=new Ii(u,d),h=new c0(-1,1,1,-1,0,1);let g=null,M=null,p=!1,m,x=null,A=[],S=!1;this.setSize=function(R,w){a.setSize(R,w),o!==null&&o.setSize(R,w),l!==null&&l.setSize(R,w);for(let _=0;_<A.length;_++){const b=A[_];b.setSize&&b.setSize(R,w)}},this.setEffects=function(R){A=R,S=A.length>0&&A[0].isRenderPass===!0;const w=a.width,_=a.height;A.length>0&&o===null&&(o=new ii(w,_,{type:_i,depthBuffer:!1,stencilBuffer:!1}),l=new ii(w,_,{type:_i,depthBuffer:!1,stencilBuffer:!1}));const b=s===!0&&A.some(z=>z.needsDepthTexture===!0);b!==(a.depthTexture!==null)&&(b===!0&&c===null&&(c=new Er(w,_),r===!0&&(c.format=gs,c.type=yr)),a.dispose(),a.depthTexture=b?c:null,a.resolveDepthBuffer=b,a.storeMultisampledDepthBuffer=b);for(let z=0;z<A.length;z++){const N=A[z];N.setSize&&N.setSize(w,_),b&&N.needsDepthTexture===!0&&N.setDepthTexture&&N.setDepthTexture(c)}},this.begin=function(R,w){if(p||R.toneMapping===Zi&&A.length===0)return!1;if(x=w,w!==null){const _=w.width,b=w.height;(a.width!==_||a.height!==b)&&this.setSize(_,b)}return S===!1&&R.setRenderTarget(a),m=R.toneMapping,R.toneMapping=Zi,!0},this.hasRenderPass=function(){return S},this.end=function(R,w){R.toneMapping=m,p=!0;let _=a,b=o;for(let z=0;z<A.length;z++){const N=A[z];N.enabled!==!1&&(N.render(R,b,_,w),N.needsSwap!==!1&&(_=b,b=b===o?l:o))}if(g!==R.outputColorSpace||M!==R.toneMapping){g=R.outputColorSpace,M=R.toneMapping,d.defines={},mt.getTransfer(g)===At&&(d.defines.SRGB_TRANSFER="");const z=pS[M];z&&(d.defines[z]=""),d.needsUpdate=!0}d.uniforms.tDiffuse.value=_.texture,R.setRenderTarget(x),R.render(f,h),x=null,p=!1},this.isCompositing=function(){return p},this.dispose=function(){a.dispose(),o!==null&&o.dispose(),l!==null&&l.dispose(),u.dispose(),d.dispose()}}const Op=new Fn,Bp=new Er(1,1),zp=new Sp(1),kp=new fp,Gp=new o_,Hp=new xp,_h=[],vh=[],xh=new Float32Array(16),Sh=new Float32Array(9),Mh=new Float32Array(4);function Nr(n,e,t){const i=n[0];if(i<=0||i>0)return n;const s=e*t;let r=_h[s];if(r===void 0&&(r=new Float32Array(s),_h[s]=r),e!==0){i.toArray(r,0);for(let a=1,o=0;a!==e;++a)o+=t,n[a].toArray(r,o)}return r}function mn(n,e){if(n.length!==e.length)return!1;for(let t=0,i=n.length;t<i;t++)if(n[t]!==e[t])return!1;return!0}function gn(n,e){for(let t=0,i=e.length;t<i;t++)n[t]=e[t]}function $o(n,e){let t=vh[e];t===void 0&&(t=new Int32Array(e),vh[e]=t);for(let i=0;i!==e;++i)t[i]=n.allocateTextureUnit();return t}function gS(n,e){const t=this.cache;t[0]!==e&&(n.uniform1f(this.addr,e),t[0]=e)}function _S(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y)&&(n.uniform2f(this.addr,e.x,e.y),t[0]=e.x,t[1]=e.y);else{if(mn(t,e))return;n.uniform2fv(this.addr,e),gn(t,e)}}function vS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y||t[2]!==e.z)&&(n.uniform3f(this.addr,e.x,e.y,e.z),t[0]=e.x,t[1]=e.y,t[2]=e.z);else if(e.r!==void 0)(t[0]!==e.r||t[1]!==e.g||t[2]!==e.b)&&(n.uniform3f(this.addr,e.r,e.g,e.b),t[0]=e.r,t[1]=e.g,t[2]=e.b);else{if(mn(t,e))return;n.uniform3fv(this.addr,e),gn(t,e)}}function xS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y||t[2]!==e.z||t[3]!==e.w)&&(n.uniform4f(this.addr,e.x,e.y,e.z,e.w),t[0]=e.x,t[1]=e.y,t[2]=e.z,t[3]=e.w);else{if(mn(t,e))return;n.uniform4fv(this.addr,e),gn(t,e)}}function SS(n,e){const t=this.cache,i=e.elements;if(i===void 0){if(mn(t,e))return;n.uniformMatrix2fv(this.addr,!1,e),gn(t,e)}else{if(mn(t,i))return;Mh.set(i),n.uniformMatrix2fv(this.addr,!1,Mh),gn(t,i)}}function MS(n,e){const t=this.cache,i=e.elements;if(i===void 0){if(mn(t,e))return;n.uniformMatrix3fv(this.addr,!1,e),gn(t,e)}else{if(mn(t,i))return;Sh.set(i),n.uniformMatrix3fv(this.addr,!1,Sh),gn(t,i)}}function yS(n,e){const t=this.cache,i=e.elements;if(i===void 0){if(mn(t,e))return;n.uniformMatrix4fv(this.addr,!1,e),gn(t,e)}else{if(mn(t,i))return;xh.set(i),n.uniformMatrix4fv(this.addr,!1,xh),gn(t,i)}}function ES(n,e){const t=this.cache;t[0]!==e&&(n.uniform1i(this.addr,e),t[0]=e)}function TS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y)&&(n.uniform2i(this.addr,e.x,e.y),t[0]=e.x,t[1]=e.y);else{if(mn(t,e))return;n.uniform2iv(this.addr,e),gn(t,e)}}function bS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y||t[2]!==e.z)&&(n.uniform3i(this.addr,e.x,e.y,e.z),t[0]=e.x,t[1]=e.y,t[2]=e.z);else{if(mn(t,e))return;n.uniform3iv(this.addr,e),gn(t,e)}}function wS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y||t[2]!==e.z||t[3]!==e.w)&&(n.uniform4i(this.addr,e.x,e.y,e.z,e.w),t[0]=e.x,t[1]=e.y,t[2]=e.z,t[3]=e.w);else{if(mn(t,e))return;n.uniform4iv(this.addr,e),gn(t,e)}}function AS(n,e){const t=this.cache;t[0]!==e&&(n.uniform1ui(this.addr,e),t[0]=e)}function RS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y)&&(n.uniform2ui(this.addr,e.x,e.y),t[0]=e.x,t[1]=e.y);else{if(mn(t,e))return;n.uniform2uiv(this.addr,e),gn(t,e)}}function CS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y||t[2]!==e.z)&&(n.uniform3ui(this.addr,e.x,e.y,e.z),t[0]=e.x,t[1]=e.y,t[2]=e.z);else{if(mn(t,e))return;n.uniform3uiv(this.addr,e),gn(t,e)}}function PS(n,e){const t=this.cache;if(e.x!==void 0)(t[0]!==e.x||t[1]!==e.y||t[2]!==e.z||t[3]!==e.w)&&(n.uniform4ui(this.addr,e.x,e.y,e.z,e.w),t[0]=e.x,t[1]=e.y,t[2]=e.z,t[3]=e.w);else{if(mn(t,e))return;n.uniform4uiv(this.addr,e),gn(t,e)}}function Ko(n){return n.version===0&&(n.compareFunction=cp,n.needsUpdate=!0),n}function LS(n,e,t){const i=this.cache,s=t.allocateTextureUnit();i[0]!==s&&(n.uniform1i(this.addr,s),i[0]=s);let r;this.type===n.SAMPLER_2D_SHADOW?r=Ko(Bp):r=Op,t.setTexture2D(e||r,s)}function DS(n,e,t){const i=this.cache,s=t.allocateTextureUnit();i[0]!==s&&(n.uniform1i(this.addr,s),i[0]=s),t.setTexture3D(e||Gp,s)}function NS(n,e,t){const i=this.cache,s=t.allocateTextureUnit();i[0]!==s&&(n.uniform1i(this.addr,s),i[0]=s);let r;this.type===n.SAMPLER_CUBE_SHADOW?r=Ko(zp):r=Hp,t.setTextureCube(e||r,s)}function IS(n,e,t){const i=this.cache,s=t.allocateTextureUnit();i[0]!==s&&(n.uniform1i(this.addr,s),i[0]=s),t.setTexture2DArray(e||kp,s)}function US(n){switch(n){case 5126:return gS;case 35664:return _S;case 35665:return vS;case 35666:return xS;case 35674:return SS;case 35675:return MS;case 35676:return yS;case 5124:case 35670:return ES;case 35667:case 35671:return TS;case 35668:case 35672:return bS;case 35669:case 35673:return wS;case 5125:return AS;case 36294:return RS;case 36295:return CS;case 36296:return PS;case 35678:case 36198:case 36298:case 36306:case 35682:return LS;case 35679:case 36299:case 36307:return DS;case 35680:case 36300:case 36308:case 36293:return NS;case 36289:case 36303:case 36311:case 36292:return IS}}function FS(n,e){n.uniform1fv(this.addr,e)}function OS(n,e){const t=Nr(e,this.size,2);n.uniform2fv(this.addr,t)}function BS(n,e){const t=Nr(e,this.size,3);n.uniform3fv(this.addr,t)}function zS(n,e){const t=Nr(e,this.size,4);n.uniform4fv(this.addr,t)}function kS(n,e){const t=Nr(e,this.size,4);n.uniformMatrix2fv(this.addr,!1,t)}function GS(n,e){const t=Nr(e,this.size,9);n.uniformMatrix3fv(this.addr,!1,t)}function HS(n,e){const t=Nr(e,this.size,16);n.uniformMatrix4fv(this.addr,!1,t)}function VS(n,e){n.uniform1iv(this.addr,e)}function WS(n,e){n.uniform2iv(this.addr,e)}function XS(n,e){n.uniform3iv(this.addr,e)}function qS(n,e){n.uniform4iv(this.addr,e)}function YS(n,e){n.uniform1uiv(this.addr,e)}function $S(n,e){n.uniform2uiv(this.addr,e)}function KS(n,e){n.uniform3uiv(this.addr,e)}function ZS(n,e){n.uniform4uiv(this.addr,e)}function JS(n,e,t){const i=this.cache,s=e.length,r=$o(t,s);mn(i,r)||(n.uniform1iv(this.addr,r),gn(i,r));let a;this.type===n.SAMPLER_2D_SHADOW?a=Ko(Bp):a=Op;for(let o=0;o!==s;++o)t.setTexture2D(e[o]||a,r[o])}function QS(n,e,t){const i=this.cache,s=e.length,r=$o(t,s);mn(i,r)||(n.uniform1iv(this.addr,r),gn(i,r));for(let a=0;a!==s;++a)t.setTexture3D(e[a]||Gp,r[a])}function jS(n,e,t){const i=this.cache,s=e.length,r=$o(t,s);mn(i,r)||(n.uniform1iv(this.addr,r),gn(i,r));let a;this.type===n.SAMPLER_CUBE_SHADOW?a=Ko(zp):a=Hp;for(let o=0;o!==s;++o)t.setTextureCube(e[o]||a,r[o])}function eM(n,e,t){const i=this.cache,s=e.length,r=$o(t,s);mn(i,r)||(n.uniform1iv(this.addr,r),gn(i,r));for(let a=0;a!==s;++a)t.setTexture2DArray(e[a]||kp,r[a])}function tM(n){switch(n){case 5126:return FS;case 35664:return OS;case 35665:return BS;case 35666:return zS;case 35674:return kS;case 35675:return GS;case 35676:return HS;case 5124:case 35670:return VS;case 35667:case 35671:return WS;case 35668:case 35672:return XS;case 35669:case 35673:return qS;case 5125:return YS;case 36294:return $S;case 36295:return KS;case 36296:return ZS;case 35678:case 36198:case 36298:case 36306:case 35682:return JS;case 35679:case 36299:case 36307:return QS;case 35680:case 36300:case 36308:case 36293:return jS;case 36289:case 36303:case 36311:case 36292:return eM}}class nM{constructor(e,t,i){this.id=e,this.addr=i,this.cache=[],this.type=t.type,this.setValue=US(t.type)}}class iM{constructor(e,t,i){this.id=e,this.addr=i,this.cache=[],this.type=t.type,this.size=t.size,this.setValue=tM(t.type)}}class sM{constructor(e){this.id=e,this.seq=[],this.map={}}setValue(e,t,i){const s=this.seq;for(let r=0,a=s.length;r!==a;++r){const o=s[r];o.setValue(e,t[o.id],i)}}}const Yl=/(\w+)(\])?(\[|\.)?/g;function yh(n,e){n.seq.push(e),n.map[e.id]=e}function rM(n,e,t){const i=n.name,s=i.length;for(Yl.lastIndex=0;;){const r=Yl.exec(i),a=Yl.lastIndex;let o=r[1];const l=r[2]==="]",c=r[3];if(l&&(o=o|0),c===void 0||c==="["&&a+2===s){yh(t,c===void 0?new nM(o,n,e):new iM(o,n,e));break}else{let d=t.map[o];d===void 0&&(d=new sM(o),yh(t,d)),t=d}}}class yo{constructor(e,t){this.seq=[],this.map={};const i=e.getProgramParameter(t,e.ACTIVE_UNIFORMS);for(let a=0;a<i;++a){const o=e.getActiveUniform(t,a),l=e.getUniformLocation(t,o.name);rM(o,l,this)}const s=[],r=[];for(const a of this.seq)a.type===e.SAMPLER_2D_SHADOW||a.type===e.SAMPLER_CUBE_SHADOW||a.type===e.SAMPLER_2D_ARRAY_SHADOW?s.push(a):r.push(a);s.length>0&&(this.seq=s.concat(r))}setValue(e,t,i,s){const r=this.map[t];r!==void 0&&r.setValue(e,i,s)}setOptional(e,t,i){const s=t[i];s!==void 0&&this.setValue(e,i,s)}static upload(e,t,i,s){for(let r=0,a=t.length;r!==a;++r){const o=t[r],l=i[o.id];l.needsUpdate!==!1&&o.setValue(e,l.value,s)}}static seqWithValue(e,t){const i=[];for(let s=0,r=e.length;s!==r;++s){const a=e[s];a.id in t&&i.push(a)}return i}}function Eh(n,e,t){const i=n.createShader(e);return n.shaderSource(i,t),n.compileShader(i),i}const aM=37297;let oM=0;function lM(n,e){const t=n.split(`
`),i=[],s=Math.max(e-6,0),r=Math.min(e+6,t.length);for(let a=s;a<r;a++){const o=a+1;i.push(`${o===e?">":" "} ${o}: ${t[a]}`)}return i.join(`
`)}const Th=new it;function cM(n){mt._getMatrix(Th,mt.workingColorSpace,n);const e=`mat3( ${Th.elements.map(t=>t.toFixed(4))} )`;switch(mt.getTransfer(n)){case Do:return[e,"LinearTransferOETF"];case At:return[e,"sRGBTransferOETF"];default:return Je("WebGLProgram: Unsupported color space: ",n),[e,"LinearTransferOETF"]}}function bh(n,e,t){const i=n.getShaderParameter(e,n.COMPILE_STATUS),r=(n.getShaderInfoLog(e)||"").trim();if(i&&r==="")return"";const a=/ERROR: 0:(\d+)/.exec(r);if(a){const o=parseInt(a[1]);return t.toUpperCase()+`

`+r+`

`+lM(n.getShaderSource(e),o)}else return r}function uM(n,e){const t=cM(e);return[`vec4 ${n}( vec4 value ) {`,`	return ${t[1]}( vec4( ${t[0]} * value.rgb, value.a ) );`,"}"].join(`
`)}const fM={[qd]:"Linear",[Yd]:"Reinhard",[$d]:"Cineon",[Kd]:"ACESFilmic",[Jd]:"AgX",[Qd]:"Neutral",[Zd]:"Custom"};function hM(n,e){const t=fM[e];return t===void 0?(Je("WebGLProgram: Unsupported toneMapping:",e),"vec3 "+n+"( vec3 color ) { return LinearToneMapping( color ); }"):"vec3 "+n+"( vec3 color ) { return "+t+"ToneMapping( color ); }"}const so=new W;function dM(){mt.getLuminanceCoefficients(so);const n=so.x.toFixed(4),e=so.y.toFixed(4),t=so.z.toFixed(4);return["float luminance( const in vec3 rgb ) {",`	const vec3 weights = vec3( ${n}, ${e}, ${t} );`,"	return dot( weights, rgb );","}"].join(`
`)}function pM(n){return[n.extensionClipCullDistance?"#extension GL_ANGLE_clip_cull_distance : require":"",n.extensionMultiDraw?"#extension GL_ANGLE_multi_draw : require":""].filter(ta).join(`
`)}function mM(n){const e=[];for(const t in n){const i=n[t];i!==!1&&e.push("#define "+t+" "+i)}return e.join(`
`)}function gM(n,e){const t={},i=n.getProgramParameter(e,n.ACTIVE_ATTRIBUTES);for(let s=0;s<i;s++){const r=n.getActiveAttrib(e,s),a=r.name;let o=1;r.type===n.FLOAT_MAT2&&(o=2),r.type===n.FLOAT_MAT3&&(o=3),r.type===n.FLOAT_MAT4&&(o=4),t[a]={type:r.type,location:n.getAttribLocation(e,a),locationSize:o}}return t}function ta(n){return n!==""}function wh(n,e){const t=e.numSpotLightShadows+e.numSpotLightMaps-e.numSpotLightShadowsWithMaps;return n.replace(/NUM_SUN_LIGHTS/g,e.numSunLights).replace(/NUM_DIR_LIGHTS/g,e.numDirLights).replace(/NUM_SPOT_LIGHTS/g,e.numSpotLights).replace(/NUM_SPOT_LIGHT_MAPS/g,e.numSpotLightMaps).replace(/NUM_SPOT_LIGHT_COORDS/g,t).replace(/NUM_RECT_AREA_LIGHTS/g,e.numRectAreaLights).replace(/NUM_POINT_LIGHTS/g,e.numPointLights).replace(/NUM_HEMI_LIGHTS/g,e.numHemiLights).replace(/NUM_SUN_LIGHT_SHADOWS/g,e.numSunLightShadows).replace(/NUM_DIR_LIGHT_SHADOWS/g,e.numDirLightShadows).replace(/NUM_SPOT_LIGHT_SHADOWS_WITH_MAPS/g,e.numSpotLightShadowsWithMaps).replace(/NUM_SPOT_LIGHT_SHADOWS/g,e.numSpotLightShadows).replace(/NUM_POINT_LIGHT_SHADOWS/g,e.numPointLightShadows).replace(/NUM_LIGHT_PROBE_GRIDS/g,e.numLightProbeGrids)}function Ah(n,e){return n.replace(/NUM_CLIPPING_PLANES/g,e.numClippingPlanes).replace(/UNION_CLIPPING_PLANES/g,e.numClippingPlanes-e.numClipIntersection)}const _M=/^[ \t]*#include +<([\w\d./]+)>/gm;function su(n){return n.replace(_M,vM)}function vM(n,e){const t=ot[e];if(t===void 0)throw new Error("THREE.WebGLProgram: Can not resolve #include <"+e+">");return su(t)}const xM=/#pragma unroll_loop_start\s+for\s*\(\s*int\s+i\s*=\s*(\d+)\s*;\s*i\s*<\s*(\d+)\s*;\s*i\s*\+\+\s*\)\s*{([\s\S]+?)}\s+#pragma unroll_loop_end/g;function Rh(n){return n.replace(xM,SM)}function SM(n,e,t,i){let s="";for(let r=parseInt(e);r<parseInt(t);r++)s+=i.replace(/\[\s*i\s*\]/g,"[ "+r+" ]").replace(/UNROLLED_LOOP_INDEX/g,r);return s}function Ch(n){let e=`precision ${n.precision} float;
	precision ${n.precision} int;
	precision ${n.precision} sampler2D;
	precision ${n.precision} samplerCube;
	precision ${n.precision} sampler3D;
	precision ${n.precision} sampler2DArray;
	precision ${n.precision} sampler2DShadow;
	precision ${n.precision} samplerCubeShadow;
	precision ${n.precision} sampler2DArrayShadow;
	precision ${n.precision} isampler2D;
	precision ${n.precision} isampler3D;
	precision ${n.precision} isamplerCube;
	precision ${n.precision} isampler2DArray;
	precision ${n.precision} usampler2D;
	precision ${n.precision} usampler3D;
	precision ${n.precision} usamplerCube;
	precision ${n.precision} usampler2DArray;
	`;return n.precision==="highp"?e+=`
#define HIGH_PRECISION`:n.precision==="mediump"?e+=`
#define MEDIUM_PRECISION`:n.precision==="lowp"&&(e+=`
#define LOW_PRECISION`),e}const MM={[go]:"SHADOWMAP_TYPE_PCF",[jr]:"SHADOWMAP_TYPE_VSM"};function yM(n){return MM[n.shadowMapType]||"SHADOWMAP_TYPE_BASIC"}const EM={[da]:"ENVMAP_MODE_REFRACTION"};function TM(n){return n.envMap===!1?"ENVMAP_MODE_REFLECTION":EM[n.envMapMode]||"ENVMAP_MODE_REFLECTION"}const bM={[Xd]:"ENVMAP_BLENDING_MULTIPLY",[Ug]:"ENVMAP_BLENDING_MIX",[Fg]:"ENVMAP_BLENDING_ADD"};function wM(n){return n.envMap===!1?"ENVMAP_BLENDING_NONE":bM[n.combine]||"ENVMAP_BLENDING_NONE"}function AM(n,e,t,i){const s=n.getContext(),r=t.defines;let a=t.vertexShader,o=t.fragmentShader;const l=yM(t),c=t.envMapPMREM===!0?"ENVMAP_TYPE_PMREM":"ENVMAP_TYPE_CUBE",u=TM(t),d=wM(t),f=pM(t),h=mM(r),g=s.createProgram();let M,p,m=t.glslVersion?"#version "+t.glslVersion+`
`:"";t.isRawShaderMaterial?(M=["#define SHADER_TYPE "+t.shaderType,"#define SHADER_NAME "+t.shaderName,h].filter(ta).join(`
`),M.length>0&&(M+=`
`),p=["#define SHADER_TYPE "+t.shaderType,"#define SHADER_NAME "+t.shaderName,h].filter(ta).join(`
`),p.length>0&&(p+=`
`)):(M=[Ch(t),"#define SHADER_TYPE "+t.shaderType,"#define SHADER_NAME "+t.shaderName,h,t.extensionClipCullDistance?"#define USE_CLIP_DISTANCE":"",t.batching?"#define USE_BATCHING":"",t.batchingColor?"#define USE_BATCHING_COLOR":"",t.instancing?"#define USE_INSTANCING":"",t.instancingColor?"#define USE_INSTANCING_COLOR":"",t.instancingMorph?"#define USE_INSTANCING_MORPH":"",t.useFog&&t.fog?"#define USE_FOG":"",t.useFog&&t.fogExp2?"#define FOG_EXP2":"",t.map?"#define USE_MAP":"",t.envMap?"#define USE_ENVMAP":"",t.envMap?"#define "+u:"",t.lightMap?"#define USE_LIGHTMAP":"",t.aoMap?"#define USE_AOMAP":"",t.bumpMap?"#define USE_BUMPMAP":"",t.normalMap?"#define USE_NORMALMAP":"",t.normalMapObjectSpace?"#define USE_NORMALMAP_OBJECTSPACE":"",t.normalMapTangentSpace?"#define USE_NORMALMAP_TANGENTSPACE":"",t.displacementMap?"#define USE_DISPLACEMENTMAP":"",t.emissiveMap?"#define USE_EMISSIVEMAP":"",t.anisotropy?"#define USE_ANISOTROPY":"",t.anisotropyMap?"#define USE_ANISOTROPYMAP":"",t.clearcoatMap?"#define USE_CLEARCOATMAP":"",t.clearcoatRoughnessMap?"#define USE_CLEARCOAT_ROUGHNESSMAP":"",t.clearcoatNormalMap?"#define USE_CLEARCOAT_NORMALMAP":"",t.diffuseRoughnessMap?"#define USE_DIFFUSE_ROUGHNESSMAP":"",t.iridescenceMap?"#define USE_IRIDESCENCEMAP":"",t.iridescenceThicknessMap?"#define USE_IRIDESCENCE_THICKNESSMAP":"",t.specularMap?"#define USE_SPECULARMAP":"",t.specularColorMap?"#define USE_SPECULAR_COLORMAP":"",t.specularIntensityMap?"#define USE_SPECULAR_INTENSITYMAP":"",t.roughnessMap?"#define USE_ROUGHNESSMAP":"",t.metalnessMap?"#define USE_METALNESSMAP":"",t.alphaMap?"#define USE_ALPHAMAP":"",t.alphaHash?"#define USE_ALPHAHASH":"",t.transmission?"#define USE_TRANSMISSION":"",t.transmissionMap?"#define USE_TRANSMISSIONMAP":"",t.thicknessMap?"#define USE_THICKNESSMAP":"",t.sheenColorMap?"#define USE_SHEEN_COLORMAP":"",t.sheenRoughnessMap?"#define USE_SHEEN_ROUGHNESSMAP":"",t.mapUv?"#define MAP_UV "+t.mapUv:"",t.alphaMapUv?"#define ALPHAMAP_UV "+t.alphaMapUv:"",t.lightMapUv?"#define LIGHTMAP_UV "+t.lightMapUv:"",t.aoMapUv?"#define AOMAP_UV "+t.aoMapUv:"",t.emissiveMapUv?"#define EMISSIVEMAP_UV "+t.emissiveMapUv:"",t.bumpMapUv?"#define BUMPMAP_UV "+t.bumpMapUv:"",t.normalMapUv?"#define NORMALMAP_UV "+t.normalMapUv:"",t.displacementMapUv?"#define DISPLACEMENTMAP_UV "+t.displacementMapUv:"",t.metalnessMapUv?"#define METALNESSMAP_UV "+t.metalnessMapUv:"",t.roughnessMapUv?"#define ROUGHNESSMAP_UV "+t.roughnessMapUv:"",t.anisotropyMapUv?"#define ANISOTROPYMAP_UV "+t.anisotropyMapUv:"",t.clearcoatMapUv?"#define CLEARCOATMAP_UV "+t.clearcoatMapUv:"",t.clearcoatNormalMapUv?"#define CLEARCOAT_NORMALMAP_UV "+t.clearcoatNormalMapUv:"",t.clearcoatRoughnessMapUv?"#define CLEARCOAT_ROUGHNESSMAP_UV "+t.clearcoatRoughnessMapUv:"",t.diffuseRoughnessMapUv?"#define DIFFUSE_ROUGHNESSMAP_UV "+t.diffuseRoughnessMapUv:"",t.iridescenceMapUv?"#define IRIDESCENCEMAP_UV "+t.iridescenceMapUv:"",t.iridescenceThicknessMapUv?"#define IRIDESCENCE_THICKNESSMAP_UV "+t.iridescenceThicknessMapUv:"",t.sheenColorMapUv?"#define SHEEN_COLORMAP_UV "+t.sheenColorMapUv:"",t.sheenRoughnessMapUv?"#define SHEEN_ROUGHNESSMAP_UV "+t.sheenRoughnessMapUv:"",t.specularMapUv?"#define SPECULARMAP_UV "+t.specularMapUv:"",t.specularColorMapUv?"#define SPECULAR_COLORMAP_UV "+t.specularColorMapUv:"",t.specularIntensityMapUv?"#define SPECULAR_INTENSITYMAP_UV "+t.specularIntensityMapUv:"",t.transmissionMapUv?"#define TRANSMISSIONMAP_UV "+t.transmissionMapUv:"",t.thicknessMapUv?"#define THICKNESSMAP_UV "+t.thicknessMapUv:"",t.vertexTangents&&t.flatShading===!1?"#define USE_TANGENT":"",t.vertexNormals?"#define HAS_NORMAL":"",t.vertexColors?"#define USE_COLOR":"",t.vertexAlphas?"#define USE_COLOR_ALPHA":"",t.vertexUv1s?"#define USE_UV1":"",t.vertexUv2s?"#define USE_UV2":"",t.vertexUv3s?"#define USE_UV3":"",t.pointsUvs?"#define USE_POINTS_UV":"",t.flatShading?"#define FLAT_SHADED":"",t.skinning?"#define USE_SKINNING":"",t.morphTargets?"#define USE_MORPHTARGETS":"",t.morphNormals&&t.flatShading===!1?"#define USE_MORPHNORMALS":"",t.morphColors?"#define USE_MORPHCOLORS":"",t.morphTargetsCount>0?"#define MORPHTARGETS_TEXTURE_STRIDE "+t.morphTextureStride:"",t.morphTargetsCount>0?"#define MORPHTARGETS_COUNT "+t.morphTargetsCount:"",t.doubleSided?"#define DOUBLE_SIDED":"",t.flipSided?"#define FLIP_SIDED":"",t.shadowMapEnabled?"#define USE_SHADOWMAP":"",t.shadowMapEnabled?"#define "+l:"",t.sizeAttenuation?"#define USE_SIZEATTENUATION":"",t.numLightProbes>0?"#define USE_LIGHT_PROBES":"",t.logarithmicDepthBuffer?"#define USE_LOGARITHMIC_DEPTH_BUFFER":"",t.reversedDepthBuffer?"#define USE_REVERSED_DEPTH_BUFFER":"","uniform mat4 modelMatrix;","uniform mat4 modelViewMatrix;","uniform mat4 projectionMatrix;","uniform mat4 viewMatrix;","uniform mat3 normalMatrix;","uniform vec3 cameraPosition;","uniform bool isOrthographic;","#ifdef USE_INSTANCING","	attribute mat4 instanceMatrix;","#endif","#ifdef USE_INSTANCING_COLOR","	attribute vec3 instanceColor;","#endif","#ifdef USE_INSTANCING_MORPH","	uniform sampler2D morphTexture;","#endif","attribute vec3 position;","attribute vec3 normal;","attribute vec2 uv;","#ifdef USE_UV1","	attribute vec2 uv1;","#endif","#ifdef USE_UV2","	attribute vec2 uv2;","#endif","#ifdef USE_UV3","	attribute vec2 uv3;","#endif","#ifdef USE_TANGENT","	attribute vec4 tangent;","#endif","#if defined( USE_COLOR_ALPHA )","	attribute vec4 color;","#elif defined( USE_COLOR )","	attribute vec3 color;","#endif","#ifdef USE_SKINNING","	attribute vec4 skinIndex;","	attribute vec4 skinWeight;","#endif",`
`].filter(ta).join(`
`),p=[Ch(t),"#define SHADER_TYPE "+t.shaderType,"#define SHADER_NAME "+t.shaderName,h,t.useFog&&t.fog?"#define USE_FOG":"",t.useFog&&t.fogExp2?"#define FOG_EXP2":"",t.alphaToCoverage?"#define ALPHA_TO_COVERAGE":"",t.map?"#define USE_MAP":"",t.matcap?"#define USE_MATCAP":"",t.envMap?"#define USE_ENVMAP":"",t.envMap?"#define "+c:"",t.envMap?"#define "+u:"",t.envMap?"#define "+d:"",t.envMapPMREM?"#define ENVMAP_MAX_LOD "+t.envMapMaxLod+".0":"",t.envMapPMREM?"#define ENVMAP_SIZE "+t.envMapSize+".0":"",t.lightMap?"#define USE_LIGHTMAP":"",t.aoMap?"#define USE_AOMAP":"",t.bumpMap?"#define USE_BUMPMAP":"",t.normalMap?"#define USE_NORMALMAP":"",t.normalMapObjectSpace?"#define USE_NORMALMAP_OBJECTSPACE":"",t.normalMapTangentSpace?"#define USE_NORMALMAP_TANGENTSPACE":"",t.packedNormalMap?"#define USE_PACKED_NORMALMAP":"",t.emissiveMap?"#define USE_EMISSIVEMAP":"",t.anisotropy?"#define USE_ANISOTROPY":"",t.anisotropyMap?"#define USE_ANISOTROPYMAP":"",t.clearcoat?"#define USE_CLEARCOAT":"",t.clearcoatMap?"#define USE_CLEARCOATMAP":"",t.clearcoatRoughnessMap?"#define USE_CLEARCOAT_ROUGHNESSMAP":"",t.clearcoatNormalMap?"#define USE_CLEARCOAT_NORMALMAP":"",t.diffuseRoughness?"#define USE_DIFFUSE_ROUGHNESS":"",t.diffuseRoughnessMap?"#define USE_DIFFUSE_ROUGHNESSMAP":"",t.dispersion?"#define USE_DISPERSION":"",t.retroreflection?"#define USE_RETROREFLECTION":"",t.iridescence?"#define USE_IRIDESCENCE":"",t.iridescenceMap?"#define USE_IRIDESCENCEMAP":"",t.iridescenceThicknessMap?"#define USE_IRIDESCENCE_THICKNESSMAP":"",t.specularMap?"#define USE_SPECULARMAP":"",t.specularColorMap?"#define USE_SPECULAR_COLORMAP":"",t.specularIntensityMap?"#define USE_SPECULAR_INTENSITYMAP":"",t.roughnessMap?"#define USE_ROUGHNESSMAP":"",t.metalnessMap?"#define USE_METALNESSMAP":"",t.alphaMap?"#define USE_ALPHAMAP":"",t.alphaTest?"#define USE_ALPHATEST":"",t.alphaHash?"#define USE_ALPHAHASH":"",t.sheen?"#define USE_SHEEN":"",t.sheenColorMap?"#define USE_SHEEN_COLORMAP":"",t.sheenRoughnessMap?"#define USE_SHEEN_ROUGHNESSMAP":"",t.transmission?"#define USE_TRANSMISSION":"",t.transmissionMap?"#define USE_TRANSMISSIONMAP":"",t.thicknessMap?"#define USE_THICKNESSMAP":"",t.vertexTangents&&t.flatShading===!1?"#define USE_TANGENT":"",t.vertexColors||t.instancingColor?"#define USE_COLOR":"",t.vertexAlphas||t.batchingColor?"#define USE_COLOR_ALPHA":"",t.vertexUv1s?"#define USE_UV1":"",t.vertexUv2s?"#define USE_UV2":"",t.vertexUv3s?"#define USE_UV3":"",t.pointsUvs?"#define USE_POINTS_UV":"",t.gradientMap?"#define USE_GRADIENTMAP":"",t.flatShading?"#define FLAT_SHADED":"",t.doubleSided?"#define DOUBLE_SIDED":"",t.flipSided?"#define FLIP_SIDED":"",t.shadowMapEnabled?"#define USE_SHADOWMAP":"",t.shadowMapEnabled?"#define "+l:"",t.premultipliedAlpha?"#define PREMULTIPLIED_ALPHA":"",t.numLightProbes>0?"#define USE_LIGHT_PROBES":"",t.decodeVideoTexture?"#define DECODE_VIDEO_TEXTURE":"",t.decodeVideoTextureEmissive?"#define DECODE_VIDEO_TEXTURE_EMISSIVE":"",t.logarithmicDepthBuffer?"#define USE_LOGARITHMIC_DEPTH_BUFFER":"",t.reversedDepthBuffer?"#define USE_REVERSED_DEPTH_BUFFER":"","uniform mat4 viewMatrix;","uniform vec3 cameraPosition;","uniform bool isOrthographic;",t.toneMapping!==Zi?"#define TONE_MAPPING":"",t.toneMapping!==Zi?ot.tonemapping_pars_fragment:"",t.toneMapping!==Zi?hM("toneMapping",t.toneMapping):"",t.dithering?"#define DITHERING":"",t.opaque?"#define OPAQUE":"",ot.colorspace_pars_fragment,uM("linearToOutputTexel",t.outputColorSpace),dM(),t.useDepthPacking?"#define DEPTH_PACKING "+t.depthPacking:"",`
`].filter(ta).join(`
`)),a=su(a),a=wh(a,t),a=Ah(a,t),o=su(o),o=wh(o,t),o=Ah(o,t),a=Rh(a),o=Rh(o),t.isRawShaderMaterial!==!0&&(m=`#version 300 es
`,M=[f,"#define attribute in","#define varying out","#define texture2D texture"].join(`
`)+`
`+M,p=["#define varying in",t.glslVersion===No?"":"layout(location = 0) out highp vec4 pc_fragColor;",t.glslVersion===No?"":"#define gl_FragColor pc_fragColor","#define gl_FragDepthEXT gl_FragDepth","#define texture2D texture","#define textureCube texture","#define texture2DProj textureProj","#define texture2DLodEXT textureLod","#define texture2DProjLodEXT textureProjLod","#define textureCubeLodEXT textureLod","#define texture2DGradEXT textureGrad","#define texture2DProjGradEXT textureProjGrad","#define textureCubeGradEXT textureGrad"].join(`
`)+`
`+p);const x=m+M+a,A=m+p+o,S=Eh(s,s.VERTEX_SHADER,x),R=Eh(s,s.FRAGMENT_SHADER,A);s.attachShader(g,S),s.attachShader(g,R),t.index0AttributeName!==void 0?s.bindAttribLocation(g,0,t.index0AttributeName):t.hasPositionAttribute===!0&&s.bindAttribLocation(g,0,"position"),s.linkProgram(g);function w(N){if(n.debug.checkShaderErrors){const L=s.getProgramInfoLog(g)||"",G=s.getShaderInfoLog(S)||"",k=s.getShaderInfoLog(R)||"",I=L.trim(),V=G.trim(),Z=k.trim();let B=!0,ce=!0;if(s.getProgramParameter(g,s.LINK_STATUS)===!1)if(B=!1,typeof n.debug.onShaderError=="function")n.debug.onShaderError(s,g,S,R);else{const K=bh(s,S,"vertex"),Q=bh(s,R,"fragment");Mt("WebGLProgram: Shader Error "+s.getError()+" - VALIDATE_STATUS "+s.getProgramParameter(g,s.VALIDATE_STATUS)+`

Material Name: `+N.name+`
Material Type: `+N.type+`

Program Info Log: `+I+`
`+K+`
`+Q)}else I!==""?Je("WebGLProgram: Program Info Log:",I):(V===""||Z==="")&&(ce=!1);ce&&(N.diagnostics={runnable:B,programLog:I,vertexShader:{log:V,prefix:M},fragmentShader:{log:Z,prefix:p}})}s.deleteShader(S),s.deleteShader(R),_=new yo(s,g),b=gM(s,g)}let _;this.getUniforms=function(){return _===void 0&&w(this),_};let b;this.getAttributes=function(){return b===void 0&&w(this),b};let z=t.rendererExtensionParallelShaderCompile===!1;return this.isReady=function(){return z===!1&&(z=s.getProgramParameter(g,aM)),z},this.destroy=function(){i.releaseStatesOfProgram(this),s.deleteProgram(g),this.program=void 0},this.type=t.shaderType,this.name=t.shaderName,this.id=oM++,this.cacheKey=e,this.usedTimes=1,this.program=g,this.vertexShader=S,this.fragmentShader=R,this}let RM=0;class CM{constructor(){this.shaderCache=new Map,this.materialCache=new Map}update(e,t,i){const s=this._getShaderCacheForMaterial(e);return s.has(t)===!1&&(s.add(t),t.usedTimes++),s.has(i)===!1&&(s.add(i),i.usedTimes++),this}remove(e){const t=this.materialCache.get(e);for(const i of t)i.usedTimes--,i.usedTimes===0&&this.shaderCache.delete(i.code);return this.materialCache.delete(e),this}getVertexShaderStage(e){return this._getShaderStage(e.vertexShader)}getFragmentShaderStage(e){return this._getShaderStage(e.fragmentShader)}dispose(){this.shaderCache.clear(),this.materialCache.clear()}_getShaderCacheForMaterial(e){const t=this.materialCache;let i=t.get(e);return i===void 0&&(i=new Set,t.set(e,i)),i}_getShaderStage(e){const t=this.shaderCache;let i=t.get(e);return i===void 0&&(i=new PM(e),t.set(e,i)),i}}class PM{constructor(e){this.id=RM++,this.code=e,this.usedTimes=0}}function LM(n){return n===Fs||n===Co||n===Po}function DM(n,e,t,i,s,r){const a=new hp,o=new CM,l=new Set,c=[],u=new Map,d=i.logarithmicDepthBuffer,f={MeshDepthMaterial:"depth",MeshDistanceMaterial:"distance",MeshNormalMaterial:"normal",MeshBasicMaterial:"basic",MeshLambertMaterial:"lambert",MeshPhongMaterial:"phong",MeshToonMaterial:"toon",MeshStandardMaterial:"physical",MeshPhysicalMaterial:"physical",MeshMatcapMaterial:"matcap",LineBasicMaterial:"basic",LineDashedMaterial:"dashed",PointsMaterial:"points",ShadowMaterial:"shadow",SpriteMaterial:"sprite"};function h(_){return l.add(_),_===0?"uv":`uv${_}`}function g(_,b,z,N,L,G){const k=N.fog,I=L.geometry,V=_.isMeshStandardMaterial||_.isMeshLambertMaterial||_.isMeshPhongMaterial?N.environment:null,Z=_.isMeshStandardMaterial||_.isMeshLambertMaterial&&!_.envMap||_.isMeshPhongMaterial&&!_.envMap,B=e.get(_.envMap||V,Z),ce=f[_.type];let K=i.precision;_.precision!==null&&(K=i.getMaxPrecision(_.precision),K!==_.precision&&Je("WebGLProgram.getParameters:",_.precision,"not supported, using",K,"instead."));const Q=I.morphAttributes.position||I.morphAttributes.normal||I.morphAttributes.color,ie=Q!==void 0?Q.length:0;let he=0;I.morphAttributes.position!==void 0&&(he=1),I.morphAttributes.normal!==void 0&&(he=2),I.morphAttributes.color!==void 0&&(he=3);let fe,j,me,ve;if(ce){const Re=Ri[ce];fe=Re.vertexShader,j=Re.fragmentShader}else{fe=_.vertexShader,j=_.fragmentShader;const Re=o.getVertexShaderStage(_),st=o.getFragmentShaderStage(_);o.update(_,Re,st),me=Re.id,ve=st.id}const Ae=n.getRenderTarget(),ye=n.state.buffers.depth.getReversed(),We=L.isInstancedMesh===!0,tt=L.isBatchedMesh===!0,Ge=!!_.map,lt=!!_.matcap,rt=!!B,je=rt&&B.isPMREMTexture===!0,kt=!!_.aoMap,It=!!_.lightMap,Qt=!!_.bumpMap&&_.wireframe===!1,Rt=!!_.normalMap,vn=!!_.displacementMap,gt=!!_.emissiveMap,cn=!!_.metalnessMap,Xt=!!_.roughnessMap,jt=_.anisotropy>0,F=_.clearcoat>0,Ce=_.diffuseRoughness>0,Ye=_.dispersion>0,nt=_.retroreflectivity>0,Ee=_.iridescence>0,Pt=_.sheen>0,ke=_.transmission>0,qe=jt&&!!_.anisotropyMap,C=F&&!!_.clearcoatMap,y=F&&!!_.clearcoatNormalMap,X=F&&!!_.clearcoatRoughnessMap,ue=Ce&&!!_.diffuseRoughnessMap,ae=Ee&&!!_.iridescenceMap,_e=Ee&&!!_.iridescenceThicknessMap,xe=Pt&&!!_.sheenColorMap,ee=Pt&&!!_.sheenRoughnessMap,ne=!!_.specularMap,pe=!!_.specularColorMap,U=!!_.specularIntensityMap,re=ke&&!!_.transmissionMap,te=ke&&!!_.thicknessMap,Te=!!_.gradientMap,ge=!!_.alphaMap,Me=_.alphaTest>0,He=!!_.alphaHash,Ke=!!_.extensions;let le=Zi;_.toneMapped&&(Ae===null||Ae.isXRRenderTarget===!0)&&(le=n.toneMapping);const Oe=je?B.isCompressedCubeTexture?B.image[0].mipmaps:B.mipmaps:null,Ze={shaderID:ce,shaderType:_.type,shaderName:_.name,vertexShader:fe,fragmentShader:j,defines:_.defines,customVertexShaderID:me,customFragmentShaderID:ve,isRawShaderMaterial:_.isRawShaderMaterial===!0,glslVersion:_.glslVersion,precision:K,batching:tt,batchingColor:tt&&L._colorsTexture!==null,instancing:We,instancingColor:We&&L.instanceColor!==null,instancingMorph:We&&L.morphTexture!==null,outputColorSpace:Ae===null?n.outputColorSpace:Ae.isXRRenderTarget===!0?Ae.texture.colorSpace:mt.workingColorSpace,alphaToCoverage:!!_.alphaToCoverage,map:Ge,matcap:lt,envMap:rt,envMapMode:rt&&B.mapping,envMapPMREM:je,envMapMaxLod:je?Oe.length-1:null,envMapSize:je?Oe[0].width:null,aoMap:kt,lightMap:It,bumpMap:Qt,normalMap:Rt,displacementMap:vn,emissiveMap:gt,normalMapObjectSpace:Rt&&_.normalMapType===zg,normalMapTangentSpace:Rt&&_.normalMapType===Uf,packedNormalMap:Rt&&_.normalMapType===Uf&&LM(_.normalMap.format),metalnessMap:cn,roughnessMap:Xt,anisotropy:jt,anisotropyMap:qe,clearcoat:F,clearcoatMap:C,clearcoatNormalMap:y,clearcoatRoughnessMap:X,diffuseRoughness:Ce,diffuseRoughnessMap:ue,dispersion:Ye,retroreflection:nt,iridescence:Ee,iridescenceMap:ae,iridescenceThicknessMap:_e,sheen:Pt,sheenColorMap:xe,sheenRoughnessMap:ee,specularMap:ne,specularColorMap:pe,specularIntensityMap:U,transmission:ke,transmissionMap:re,thicknessMap:te,gradientMap:Te,opaque:_.transparent===!1&&_.blending===_r&&_.alphaToCoverage===!1,alphaMap:ge,alphaTest:Me,alphaHash:He,combine:_.combine,mapUv:Ge&&h(_.map.channel),aoMapUv:kt&&h(_.aoMap.channel),lightMapUv:It&&h(_.lightMap.channel),bumpMapUv:Qt&&h(_.bumpMap.channel),normalMapUv:Rt&&h(_.normalMap.channel),displacementMapUv:vn&&h(_.displacementMap.channel),emissiveMapUv:gt&&h(_.emissiveMap.channel),metalnessMapUv:cn&&h(_.metalnessMap.channel),roughnessMapUv:Xt&&h(_.roughnessMap.channel),anisotropyMapUv:qe&&h(_.anisotropyMap.channel),clearcoatMapUv:C&&h(_.clearcoatMap.channel),clearcoatNormalMapUv:y&&h(_.clearcoatNormalMap.channel),clearcoatRoughnessMapUv:X&&h(_.clearcoatRoughnessMap.channel),diffuseRoughnessMapUv:ue&&h(_.diffuseRoughnessMap.channel),iridescenceMapUv:ae&&h(_.iridescenceMap.channel),iridescenceThicknessMapUv:_e&&h(_.iridescenceThicknessMap.channel),sheenColorMapUv:xe&&h(_.sheenColorMap.channel),sheenRoughnessMapUv:ee&&h(_.sheenRoughnessMap.channel),specularMapUv:ne&&h(_.specularMap.channel),specularColorMapUv:pe&&h(_.specularColorMap.channel),specularIntensityMapUv:U&&h(_.specularIntensityMap.channel),transmissionMapUv:re&&h(_.transmissionMap.channel),thicknessMapUv:te&&h(_.thicknessMap.channel),alphaMapUv:ge&&h(_.alphaMap.channel),vertexTangents:!!I.attributes.tangent&&(Rt||jt),vertexNormals:!!I.attributes.normal,vertexColors:_.vertexColors,vertexAlphas:_.vertexColors===!0&&!!I.attributes.color&&I.attributes.color.itemSize===4,pointsUvs:L.isPoints===!0&&!!I.attributes.uv&&(Ge||ge),fog:!!k,useFog:_.fog===!0,fogExp2:!!k&&k.isFogExp2,flatShading:_.wireframe===!1&&(_.flatShading===!0||I.attributes.normal===void 0&&Rt===!1&&(_.isMeshLambertMaterial||_.isMeshPhongMaterial||_.isMeshStandardMaterial||_.isMeshPhysicalMaterial)),sizeAttenuation:_.sizeAttenuation===!0,logarithmicDepthBuffer:d,reversedDepthBuffer:ye,skinning:L.isSkinnedMesh===!0,hasPositionAttribute:I.attributes.position!==void 0,morphTargets:I.morphAttributes.position!==void 0,morphNormals:I.morphAttributes.normal!==void 0,morphColors:I.morphAttributes.color!==void 0,morphTargetsCount:ie,morphTextureStride:he,numSunLights:b.sun.length,numDirLights:b.directional.length,numPointLights:b.point.length,numSpotLights:b.spot.length,numSpotLightMaps:b.spotLightMap.length,numRectAreaLights:b.rectArea.length,numHemiLights:b.hemi.length,numSunLightShadows:b.sunShadowMap.length,numDirLightShadows:b.directionalShadowMap.length,numPointLightShadows:b.pointShadowMap.length,numSpotLightShadows:b.spotShadowMap.length,numSpotLightShadowsWithMaps:b.numSpotLightShadowsWithMaps,numLightProbes:b.numLightProbes,numLightProbeGrids:G.filter(Re=>Re.texture!==null).length,numClippingPlanes:r.numPlanes,numClipIntersection:r.numIntersection,dithering:_.dithering,shadowMapEnabled:n.shadowMap.enabled&&z.length>0,shadowMapType:n.shadowMap.type,toneMapping:le,decodeVideoTexture:Ge&&_.map.isVideoTexture===!0&&mt.getTransfer(_.map.colorSpace)===At,decodeVideoTextureEmissive:gt&&_.emissiveMap.isVideoTexture===!0&&mt.getTransfer(_.emissiveMap.colorSpace)===At,premultipliedAlpha:_.premultipliedAlpha,doubleSided:_.side===Pi,flipSided:_.side===Bn,useDepthPacking:_.depthPacking>=0,depthPacking:_.depthPacking||0,index0AttributeName:_.index0AttributeName,extensionClipCullDistance:Ke&&_.extensions.clipCullDistance===!0&&t.has("WEBGL_clip_cull_distance"),extensionMultiDraw:(Ke&&_.extensions.multiDraw===!0||tt)&&t.has("WEBGL_multi_draw"),rendererExtensionParallelShaderCompile:t.has("KHR_parallel_shader_compile"),customProgramCacheKey:_.customProgramCacheKey()};return Ze.vertexUv1s=l.has(1),Ze.vertexUv2s=l.has(2),Ze.vertexUv3s=l.has(3),l.clear(),Ze}function M(_){const b=[];if(_.shaderID?b.push(_.shaderID):(b.push(_.customVertexShaderID),b.push(_.customFragmentShaderID)),_.defines!==void 0)for(const z in _.defines)b.push(z),b.push(_.defines[z]);return _.isRawShaderMaterial===!1&&(p(b,_),m(b,_),b.push(n.outputColorSpace)),b.push(_.customProgramCacheKey),b.join()}function p(_,b){_.push(b.precision),_.push(b.outputColorSpace),_.push(b.envMapMode),_.push(b.envMapPMREM),_.push(b.envMapMaxLod),_.push(b.envMapSize),_.push(b.mapUv),_.push(b.alphaMapUv),_.push(b.lightMapUv),_.push(b.aoMapUv),_.push(b.bumpMapUv),_.push(b.normalMapUv),_.push(b.displacementMapUv),_.push(b.emissiveMapUv),_.push(b.metalnessMapUv),_.push(b.roughnessMapUv),_.push(b.anisotropyMapUv),_.push(b.clearcoatMapUv),_.push(b.clearcoatNormalMapUv),_.push(b.clearcoatRoughnessMapUv),_.push(b.diffuseRoughnessMapUv),_.push(b.iridescenceMapUv),_.push(b.iridescenceThicknessMapUv),_.push(b.sheenColorMapUv),_.push(b.sheenRoughnessMapUv),_.push(b.specularMapUv),_.push(b.specularColorMapUv),_.push(b.specularIntensityMapUv),_.push(b.transmissionMapUv),_.push(b.thicknessMapUv),_.push(b.combine),_.push(b.fogExp2),_.push(b.sizeAttenuation),_.push(b.morphTargetsCount),_.push(b.numSunLights),_.push(b.numDirLights),_.push(b.numPointLights),_.push(b.numSpotLights),_.push(b.numSpotLightMaps),_.push(b.numHemiLights),_.push(b.numRectAreaLights),_.push(b.numSunLightShadows),_.push(b.numDirLightShadows),_.push(b.numPointLightShadows),_.push(b.numSpotLightShadows),_.push(b.numSpotLightShadowsWithMaps),_.push(b.numLightProbes),_.push(b.numLightProbeGrids),_.push(b.shadowMapType),_.push(b.toneMapping),_.push(b.numClippingPlanes),_.push(b.numClipIntersection),_.push(b.depthPacking)}function m(_,b){a.disableAll(),b.instancing&&a.enable(0),b.instancingColor&&a.enable(1),b.instancingMorph&&a.enable(2),b.matcap&&a.enable(3),b.envMap&&a.enable(4),b.normalMapObjectSpace&&a.enable(5),b.normalMapTangentSpace&&a.enable(6),b.clearcoat&&a.enable(7),b.iridescence&&a.enable(8),b.alphaTest&&a.enable(9),b.vertexColors&&a.enable(10),b.vertexAlphas&&a.enable(11),b.vertexUv1s&&a.enable(12),b.vertexUv2s&&a.enable(13),b.vertexUv3s&&a.enable(14),b.vertexTangents&&a.enable(15),b.anisotropy&&a.enable(16),b.alphaHash&&a.enable(17),b.batching&&a.enable(18),b.dispersion&&a.enable(19),b.retroreflection&&a.enable(24),b.diffuseRoughness&&a.enable(25),b.batchingColor&&a.enable(20),b.gradientMap&&a.enable(21),b.packedNormalMap&&a.enable(22),b.vertexNormals&&a.enable(23),_.push(a.mask),a.disableAll(),b.fog&&a.enable(0),b.useFog&&a.enable(1),b.flatShading&&a.enable(2),b.logarithmicDepthBuffer&&a.enable(3),b.reversedDepthBuffer&&a.enable(4),b.skinning&&a.enable(5),b.morphTargets&&a.enable(6),b.morphNormals&&a.enable(7),b.morphColors&&a.enable(8),b.premultipliedAlpha&&a.enable(9),b.shadowMapEnabled&&a.enable(10),b.doubleSided&&a.enable(11),b.flipSided&&a.enable(12),b.useDepthPacking&&a.enable(13),b.dithering&&a.enable(14),b.transmission&&a.enable(15),b.sheen&&a.enable(16),b.opaque&&a.enable(17),b.pointsUvs&&a.enable(18),b.decodeVideoTexture&&a.enable(19),b.decodeVideoTextureEmissive&&a.enable(20),b.alphaToCoverage&&a.enable(21),b.numLightProbeGrids>0&&a.enable(22),b.hasPositionAttribute&&a.enable(23),_.push(a.mask)}function x(_){const b=f[_.type];let z;if(b){const N=Ri[b];z=s0.clone(N.uniforms)}else z=_.uniforms;return z}function A(_,b){let z=u.get(b);return z!==void 0?++z.usedTimes:(z=new AM(n,b,_,s),c.push(z),u.set(b,z)),z}function S(_){if(--_.usedTimes===0){const b=c.indexOf(_);c[b]=c[c.length-1],c.pop(),u.delete(_.cacheKey),_.destroy()}}function R(_){o.remove(_)}function w(){o.dispose()}return{getParameters:g,getProgramCacheKey:M,getUniforms:x,acquireProgram:A,releaseProgram:S,releaseShaderCache:R,programs:c,dispose:w}}function NM(){let n=new WeakMap;function e(a){return n.has(a)}function t(a){let o=n.get(a);return o===void 0&&(o={},n.set(a,o)),o}function i(a){n.delete(a)}function s(a,o,l){n.get(a)[o]=l}function r(){n=new WeakMap}return{has:e,get:t,remove:i,update:s,dispose:r}}function IM(n,e){return n.groupOrder!==e.groupOrder?n.groupOrder-e.groupOrder:n.renderOrder!==e.renderOrder?n.renderOrder-e.renderOrder:n.material.id!==e.material.id?n.material.id-e.material.id:n.materialVariant!==e.materialVariant?n.materialVariant-e.materialVariant:n.z!==e.z?n.z-e.z:n.id-e.id}function Ph(n,e){return n.groupOrder!==e.groupOrder?n.groupOrder-e.groupOrder:n.renderOrder!==e.renderOrder?n.renderOrder-e.renderOrder:n.z!==e.z?e.z-n.z:n.id-e.id}function Lh(){const n=[];let e=0;const t=[],i=[],s=[];function r(){e=0,t.length=0,i.length=0,s.length=0}function a(f){let h=0;return f.isInstancedMesh&&(h+=2),f.isSkinnedMesh&&(h+=1),h}function o(f,h,g,M,p,m){let x=n[e];return x===void 0?(x={id:f.id,object:f,geometry:h,material:g,materialVariant:a(f),groupOrder:M,renderOrder:f.renderOrder,z:p,group:m},n[e]=x):(x.id=f.id,x.object=f,x.geometry=h,x.material=g,x.materialVariant=a(f),x.groupOrder=M,x.renderOrder=f.renderOrder,x.z=p,x.group=m),e++,x}function l(f,h,g,M,p,m,x){x.reversedDepth===!0&&(p=-p);const A=o(f,h,g,M,p,m);g.transmission>0?i.push(A):g.transparent===!0?s.push(A):t.push(A)}function c(f,h,g,M,p,m){const x=o(f,h,g,M,p,m);g.transmission>0?i.unshift(x):g.transparent===!0?s.unshift(x):t.unshift(x)}function u(f,h){t.length>1&&t.sort(f||IM),i.length>1&&i.sort(h||Ph),s.length>1&&s.sort(h||Ph)}function d(){for(let f=e,h=n.length;f<h;f++){const g=n[f];if(g.id===null)break;g.id=null,g.object=null,g.geometry=null,g.material=null,g.group=null}}return{opaque:t,transmissive:i,transparent:s,init:r,push:l,unshift:c,finish:d,sort:u}}function UM(){let n=new WeakMap;function e(i,s){const r=n.get(i);let a;return r===void 0?(a=new Lh,n.set(i,[a])):s>=r.length?(a=new Lh,r.push(a)):a=r[s],a}function t(){n=new WeakMap}return{get:e,dispose:t}}function FM(){const n={};return{get:function(e){if(n[e.id]!==void 0)return n[e.id];let t;switch(e.type){case"SunLight":case"DirectionalLight":t={direction:new W,color:new yt};break;case"SpotLight":t={position:new W,direction:new W,color:new yt,distance:0,coneCos:0,penumbraCos:0,decay:0};break;case"PointLight":t={position:new W,color:new yt,distance:0,decay:0};break;case"HemisphereLight":t={direction:new W,skyColor:new yt,groundColor:new yt};break;case"RectAreaLight":t={color:new yt,position:new W,halfWidth:new W,halfHeight:new W};break}return n[e.id]=t,t}}}function OM(){const n={};return{get:function(e){if(n[e.id]!==void 0)return n[e.id];let t;switch(e.type){case"SunLight":case"DirectionalLight":t={shadowIntensity:1,shadowBias:0,shadowNormalBias:0,shadowRadius:1,shadowMapSize:new Ve};break;case"SpotLight":t={shadowIntensity:1,shadowBias:0,shadowNormalBias:0,shadowRadius:1,shadowMapSize:new Ve};break;case"PointLight":t={shadowIntensity:1,shadowBias:0,shadowNormalBias:0,shadowRadius:1,shadowMapSize:new Ve,shadowCameraNear:1,shadowCameraFar:1e3};break}return n[e.id]=t,t}}}let BM=0;function zM(n,e){return(e.castShadow?2:0)-(n.castShadow?2:0)+(e.map?1:0)-(n.map?1:0)}function kM(n){const e=new FM,t=OM(),i={version:0,hash:{sunLength:-1,directionalLength:-1,pointLength:-1,spotLength:-1,rectAreaLength:-1,hemiLength:-1,numSunShadows:-1,numDirectionalShadows:-1,numPointShadows:-1,numSpotShadows:-1,numSpotMaps:-1,numLightProbes:-1},ambient:[0,0,0],probe:[],sun:[],sunShadow:[],sunShadowMap:[],sunShadowMatrix:[],sunShadowCascade:[],directional:[],directionalShadow:[],directionalShadowMap:[],directionalShadowMatrix:[],spot:[],spotLightMap:[],spotShadow:[],spotShadowMap:[],spotLightMatrix:[],rectArea:[],rectAreaLTC1:null,rectAreaLTC2:null,point:[],pointShadow:[],pointShadowMap:[],pointShadowMatrix:[],hemi:[],numSpotLightShadowsWithMaps:0,numLightProbes:0};for(let c=0;c<9;c++)i.probe.push(new W);const s=new W,r=new Wt,a=new Wt;function o(c){let u=0,d=0,f=0;for(let G=0;G<9;G++)i.probe[G].set(0,0,0);let h=0,g=0,M=0,p=0,m=0,x=0,A=0,S=0,R=0,w=0,_=0,b=0,z=0,N=0;c.sort(zM);for(let G=0,k=c.length;G<k;G++){const I=c[G],V=I.color,Z=I.intensity,B=I.distance;let ce=null;if(I.shadow&&I.shadow.map&&(I.shadow.map.texture.format===Fs?ce=I.shadow.map.texture:ce=I.shadow.map.depthTexture||I.shadow.map.texture),I.isAmbientLight)u+=V.r*Z,d+=V.g*Z,f+=V.b*Z;else if(I.isLightProbe){for(let K=0;K<9;K++)i.probe[K].addScaledVector(I.sh.coefficients[K],Z);N++}else if(I.isSunLight){const K=e.get(I);if(K.color.copy(I.color).multiplyScalar(I.intensity),I.castShadow){const Q=I.shadow,ie=t.get(I);ie.shadowIntensity=Q.intensity,ie.shadowBias=Q.bias,ie.shadowNormalBias=Q.normalBias,ie.shadowRadius=Q.radius,ie.shadowMapSize.copy(Q.mapSize).multiply(Q.getFrameExtents()),i.sunShadow[g]=ie,i.sunShadowMap[g]=ce;const he=Q.getViewportCount();for(let fe=0;fe<he;fe++)i.sunShadowMatrix[M+fe]=Q.getMatrix(fe),i.sunShadowCascade[M+fe]=Q._cascadeData[fe];M+=he,g++}i.sun[h]=K,h++}else if(I.isDirectionalLight){const K=e.get(I);if(K.color.copy(I.color).multiplyScalar(I.intensity),I.castShadow){const Q=I.shadow,ie=t.get(I);ie.shadowIntensity=Q.intensity,ie.shadowBias=Q.bias,ie.shadowNormalBias=Q.normalBias,ie.shadowRadius=Q.radius,ie.shadowMapSize=Q.mapSize,i.directionalShadow[p]=ie,i.directionalShadowMap[p]=ce,i.directionalShadowMatrix[p]=I.shadow.matrix,R++}i.directional[p]=K,p++}else if(I.isSpotLight){const K=e.get(I);K.position.setFromMatrixPosition(I.matrixWorld),K.color.copy(V).multiplyScalar(Z),K.distance=B,K.coneCos=Math.cos(I.angle),K.penumbraCos=Math.cos(I.angle*(1-I.penumbra)),K.decay=I.decay,i.spot[x]=K;const Q=I.shadow;if(I.map&&(i.spotLightMap[b]=I.map,b++,Q.updateMatrices(I),I.castShadow&&z++),i.spotLightMatrix[x]=Q.matrix,I.castShadow){const ie=t.get(I);ie.shadowIntensity=Q.intensity,ie.shadowBias=Q.bias,ie.shadowNormalBias=Q.normalBias,ie.shadowRadius=Q.radius,ie.shadowMapSize=Q.mapSize,i.spotShadow[x]=ie,i.spotShadowMap[x]=ce,_++}x++}else if(I.isRectAreaLight){const K=e.get(I);K.color.copy(V).multiplyScalar(Z),K.halfWidth.set(I.width*.5,0,0),K.halfHeight.set(0,I.height*.5,0),i.rectArea[A]=K,A++}else if(I.isPointLight){const K=e.get(I);if(K.color.copy(I.color).multiplyScalar(I.intensity),K.distance=I.distance,K.decay=I.decay,I.castShadow){const Q=I.shadow,ie=t.get(I);ie.shadowIntensity=Q.intensity,ie.shadowBias=Q.bias,ie.shadowNormalBias=Q.normalBias,ie.shadowRadius=Q.radius,ie.shadowMapSize=Q.mapSize,ie.shadowCameraNear=Q.camera.near,ie.shadowCameraFar=Q.camera.far,i.pointShadow[m]=ie,i.pointShadowMap[m]=ce,i.pointShadowMatrix[m]=I.shadow.matrix,w++}i.point[m]=K,m++}else if(I.isHemisphereLight){const K=e.get(I);K.skyColor.copy(I.color).multiplyScalar(Z),K.groundColor.copy(I.groundColor).multiplyScalar(Z),i.hemi[S]=K,S++}}A>0&&(n.has("OES_texture_float_linear")===!0?(i.rectAreaLTC1=De.LTC_FLOAT_1,i.rectAreaLTC2=De.LTC_FLOAT_2):(i.rectAreaLTC1=De.LTC_HALF_1,i.rectAreaLTC2=De.LTC_HALF_2)),i.ambient[0]=u,i.ambient[1]=d,i.ambient[2]=f;const L=i.hash;(L.sunLength!==h||L.directionalLength!==p||L.pointLength!==m||L.spotLength!==x||L.rectAreaLength!==A||L.hemiLength!==S||L.numSunShadows!==g||L.numDirectionalShadows!==R||L.numPointShadows!==w||L.numSpotShadows!==_||L.numSpotMaps!==b||L.numLightProbes!==N)&&(i.sun.length=h,i.directional.length=p,i.spot.length=x,i.rectArea.length=A,i.point.length=m,i.hemi.length=S,i.sunShadow.length=g,i.sunShadowMap.length=g,i.sunShadowMatrix.length=M,i.sunShadowCascade.length=M,i.directionalShadow.length=R,i.directionalShadowMap.length=R,i.directionalShadowMatrix.length=R,i.pointShadow.length=w,i.pointShadowMap.length=w,i.pointShadowMatrix.length=w,i.spotShadow.length=_,i.spotShadowMap.length=_,i.spotLightMatrix.length=_+b-z,i.spotLightMap.length=b,i.numSpotLightShadowsWithMaps=z,i.numLightProbes=N,L.sunLength=h,L.directionalLength=p,L.pointLength=m,L.spotLength=x,L.rectAreaLength=A,L.hemiLength=S,L.numSunShadows=g,L.numDirectionalShadows=R,L.numPointShadows=w,L.numSpotShadows=_,L.numSpotMaps=b,L.numLightProbes=N,i.version=BM++)}function l(c,u){let d=0,f=0,h=0,g=0,M=0,p=0;const m=u.matrixWorldInverse;for(let x=0,A=c.length;x<A;x++){const S=c[x];if(S.isSunLight){const R=i.sun[d];R.direction.setFromMatrixPosition(S.matrixWorld),R.direction.transformDirection(m),d++}else if(S.isDirectionalLight){const R=i.directional[f];R.direction.setFromMatrixPosition(S.matrixWorld),s.setFromMatrixPosition(S.target.matrixWorld),R.direction.sub(s),R.direction.transformDirection(m),f++}else if(S.isSpotLight){const R=i.spot[g];R.position.setFromMatrixPosition(S.matrixWorld),R.position.applyMatrix4(m),R.direction.setFromMatrixPosition(S.matrixWorld),s.setFromMatrixPosition(S.target.matrixWorld),R.direction.sub(s),R.direction.transformDirection(m),g++}else if(S.isRectAreaLight){const R=i.rectArea[M];R.position.setFromMatrixPosition(S.matrixWorld),R.position.applyMatrix4(m),a.identity(),r.copy(S.matrixWorld),r.premultiply(m),a.extractRotation(r),R.halfWidth.set(S.width*.5,0,0),R.halfHeight.set(0,S.height*.5,0),R.halfWidth.applyMatrix4(a),R.halfHeight.applyMatrix4(a),M++}else if(S.isPointLight){const R=i.point[h];R.position.setFromMatrixPosition(S.matrixWorld),R.position.applyMatrix4(m),h++}else if(S.isHemisphereLight){const R=i.hemi[p];R.direction.setFromMatrixPosition(S.matrixWorld),R.direction.transformDirection(m),p++}}}return{setup:o,setupView:l,state:i}}function Dh(n){const e=new kM(n),t=[],i=[],s=[];function r(d){u.camera=d,t.length=0,i.length=0,s.length=0}function a(d){d.isLightProbeGrid?s.push(d):t.push(d)}function o(d){i.push(d)}function l(){e.setup(t),s.sort((d,f)=>d.priority-f.priority||d.id-f.id)}function c(d){e.setupView(t,d)}const u={lightsArray:t,shadowsArray:i,lightProbeGridArray:s,camera:null,lights:e,transmissionRenderTarget:{},textureUnits:0};return{init:r,state:u,setupLights:l,setupLightsView:c,pushLight:a,pushShadow:o}}function GM(n){let e=new WeakMap;function t(s,r=0){const a=e.get(s);let o;return a===void 0?(o=new Dh(n),e.set(s,[o])):r>=a.length?(o=new Dh(n),a.push(o)):o=a[r],o}function i(){e=new WeakMap}return{get:t,dispose:i}}const HM=`void main() {
	gl_Position = vec4( position, 1.0 );
}`,VM=`uniform sampler2D shadow_pass;
uniform vec2 resolution;
uniform float radius;
void main() {
	const float samples = float( VSM_SAMPLES );
	float mean = 0.0;
	float squared_mean = 0.0;
	float uvStride = samples <= 1.0 ? 0.0 : 2.0 / ( samples - 1.0 );
	float uvStart = samples <= 1.0 ? 0.0 : - 1.0;
	for ( float i = 0.0; i < samples; i ++ ) {
		float uvOffset = uvStart + i * uvStride;
		#ifdef HORIZONTAL_PASS
			vec2 distribution = texture2D( shadow_pass, ( gl_FragCoord.xy + vec2( uvOffset, 0.0 ) * radius ) / resolution ).rg;
			mean += distribution.x;
			squared_mean += distribution.y * distribution.y + distribution.x * distribution.x;
		#else
			float depth = texture2D( shadow_pass, ( gl_FragCoord.xy + vec2( 0.0, uvOffset ) * radius ) / resolution ).r;
			mean += depth;
			squared_mean += depth * depth;
		#endif
	}
	mean = mean / samples;
	squared_mean = squared_mean / samples;
	float std_dev = sqrt( max( 0.0, squared_mean - mean * mean ) );
	gl_FragColor = vec4( mean, std_dev, 0.0, 1.0 );
}`,WM=[new W(1,0,0),new W(-1,0,0),new W(0,1,0),new W(0,-1,0),new W(0,0,1),new W(0,0,-1)],XM=[new W(0,-1,0),new W(0,-1,0),new W(0,0,1),new W(0,0,-1),new W(0,-1,0),new W(0,-1,0)],Nh=new Wt,Zr=new W,$l=new W;function qM(n,e,t){let i=new Fo;const s=new Ve,r=new Ve,a=new ln,o=new o0,l=new l0,c={},u=t.maxTextureSize,d={[Us]:Bn,[Bn]:Us,[Pi]:Pi},f=new zs({defines:{VSM_SAMPLES:8},uniforms:{shadow_pass:{value:null},resolution:{value:new Ve},radius:{value:4}},vertexShader:HM,fragmentShader:VM}),h=f.clone();h.defines.HORIZONTAL_PASS=1;const g=new si;g.setAttribute("position",new Ni(new Float32Array([-1,-1,.5,3,-1,.5,-1,3,.5]),3));const M=new Ii(g,f),p=this;this.enabled=!1,this.autoUpdate=!0,this.needsUpdate=!1,this.type=go;let m=this.type;this.render=function(w,_,b){if(p.enabled===!1||p.autoUpdate===!1&&p.needsUpdate===!1||w.length===0)return;this.type===gg&&(Je("WebGLShadowMap: PCFSoftShadowMap has been removed. Using PCFShadowMap instead."),this.type=go);const z=n.getRenderTarget(),N=n.getActiveCubeFace(),L=n.getActiveMipmapLevel(),G=n.state;G.setBlending(gr),G.buffers.depth.getReversed()===!0?G.buffers.color.setClear(0,0,0,0):G.buffers.color.setClear(1,1,1,1),G.buffers.depth.setTest(!0),G.setScissorTest(!1);const k=m!==this.type;k&&_.traverse(function(I){I.material&&(Array.isArray(I.material)?I.material.forEach(V=>V.needsUpdate=!0):I.material.needsUpdate=!0)});for(let I=0,V=w.length;I<V;I++){const Z=w[I],B=Z.shadow;if(B===void 0){Je("WebGLShadowMap:",Z,"has no shadow.");continue}if(B.autoUpdate===!1&&B.needsUpdate===!1)continue;s.copy(B.mapSize);const ce=B.getFrameExtents();s.multiply(ce),r.copy(B.mapSize),(s.x>u||s.y>u)&&(s.x>u&&(r.x=Math.floor(u/ce.x),s.x=r.x*ce.x,B.mapSize.x=r.x),s.y>u&&(r.y=Math.floor(u/ce.y),s.y=r.y*ce.y,B.mapSize.y=r.y));const K=n.state.buffers.depth.getReversed();if(B.camera._reversedDepth=K,B.map===null||k===!0){if(B.map!==null&&(B.map.depthTexture!==null&&(B.map.depthTexture.dispose(),B.map.depthTexture=null),B.map.dispose()),this.type===jr){if(Z.isPointLight){Je("WebGLShadowMap: VSM shadow maps are not supported for PointLights. Use PCF or BasicShadowMap instead.");continue}B.map=new ii(s.x,s.y,{format:Fs,type:_i,minFilter:On,magFilter:On,generateMipmaps:!1}),B.map.texture.name=Z.name+".shadowMap",B.map.depthTexture=new Er(s.x,s.y,Li),B.map.depthTexture.name=Z.name+".shadowMapDepth",B.map.depthTexture.format=xs,B.map.depthTexture.compareFunction=null,B.map.depthTexture.minFilter=pn,B.map.depthTexture.magFilter=pn}else Z.isPointLight?(B.map=new Fu(s.x),B.map.depthTexture=new Sp(s.x,Ui)):(B.map=new ii(s.x,s.y),B.map.depthTexture=new Er(s.x,s.y,Ui)),B.map.depthTexture.name=Z.name+".shadowMap",B.map.depthTexture.format=xs,this.type===go?(B.map.depthTexture.compareFunction=K?lp:op,B.map.depthTexture.minFilter=On,B.map.depthTexture.magFilter=On):(B.map.depthTexture.compareFunction=null,B.map.depthTexture.minFilter=pn,B.map.depthTexture.magFilter=pn);B.camera.updateProjectionMatrix()}B.map.isWebGLCubeRenderTarget!==!0&&(B.map.width!==s.x||B.map.height!==s.y)&&B.map.setSize(s.x,s.y);const Q=B.map.isWebGLCubeRenderTarget?6:B.getViewportCount();Z.isPointLight!==!0&&B.updateMatrices(Z,b);const ie=(B.camera.layers.mask&4294967294)!==0?B.camera.layers:b.layers;for(let he=0;he<Q;he++){const fe=B.getCamera(he);if(Z.isPointLight){const j=B.camera,me=B.matrix,ve=Z.distance||j.far;ve!==j.far&&(j.far=ve,j.updateProjectionMatrix()),Zr.setFromMatrixPosition(Z.matrixWorld),j.position.copy(Zr),$l.copy(j.position),$l.add(WM[he]),j.up.copy(XM[he]),j.lookAt($l),j.updateMatrixWorld(),me.makeTranslation(-Zr.x,-Zr.y,-Zr.z),Nh.multiplyMatrices(j.projectionMatrix,j.matrixWorldInverse),B._frustum.setFromProjectionMatrix(Nh,j.coordinateSystem,j.reversedDepth)}if(B.map.isWebGLCubeRenderTarget)n.setRenderTarget(B.map,he),n.clear();else{he===0&&(n.setRenderTarget(B.map),n.clear());const j=B.getViewport(he);a.set(r.x*j.x,r.y*j.y,r.x*j.z,r.y*j.w),G.viewport(a)}i=B.getFrustum(he),S(_,b,fe,Z,ie,this.type)}B.isPointLightShadow!==!0&&this.type===jr&&x(B,b),B.needsUpdate=!1}m=this.type,p.needsUpdate=!1,n.setRenderTarget(z,N,L)};function x(w,_){const b=e.update(M);f.defines.VSM_SAMPLES!==w.blurSamples&&(f.defines.VSM_SAMPLES=w.blurSamples,h.defines.VSM_SAMPLES=w.blurSamples,f.needsUpdate=!0,h.needsUpdate=!0),w.mapPass===null?w.mapPass=new ii(s.x,s.y,{format:Fs,type:_i}):(w.mapPass.width!==w.map.width||w.mapPass.height!==w.map.height)&&w.mapPass.setSize(w.map.width,w.map.height),f.uniforms.shadow_pass.value=w.map.depthTexture,f.uniforms.resolution.value.set(w.map.width,w.map.height),f.uniforms.radius.value=w.radius,n.setRenderTarget(w.mapPass),n.clear(),n.renderBufferDirect(_,null,b,f,M,null),h.uniforms.shadow_pass.value=w.mapPass.texture,h.uniforms.resolution.value.set(w.map.width,w.map.height),h.uniforms.radius.value=w.radius,n.setRenderTarget(w.map),n.clear(),n.renderBufferDirect(_,null,b,h,M,null)}function A(w,_,b,z){let N=null;const L=b.isPointLight===!0?w.customDistanceMaterial:w.customDepthMaterial;if(L!==void 0)N=L;else if(N=b.isPointLight===!0?l:o,n.localClippingEnabled&&_.clipShadows===!0&&Array.isArray(_.clippingPlanes)&&_.clippingPlanes.length!==0||_.displacementMap&&_.displacementScale!==0||_.alphaMap&&_.alphaTest>0||_.map&&_.alphaTest>0||_.alphaToCoverage===!0){const G=N.uuid,k=_.uuid;let I=c[G];I===void 0&&(I={},c[G]=I);let V=I[k];V===void 0&&(V=N.clone(),I[k]=V,_.addEventListener("dispose",R)),N=V}if(N.visible=_.visible,N.wireframe=_.wireframe,z===jr?N.side=_.shadowSide!==null?_.shadowSide:_.side:N.side=_.shadowSide!==null?_.shadowSide:d[_.side],N.alphaMap=_.alphaMap,N.alphaTest=_.alphaToCoverage===!0?.5:_.alphaTest,N.map=_.map,N.clipShadows=_.clipShadows,N.clippingPlanes=_.clippingPlanes,N.clipIntersection=_.clipIntersection,N.displacementMap=_.displacementMap,N.displacementScale=_.displacementScale,N.displacementBias=_.displacementBias,N.wireframeLinewidth=_.wireframeLinewidth,N.linewidth=_.linewidth,b.isPointLight===!0&&N.isMeshDistanceMaterial===!0){const G=n.properties.get(N);G.light=b}return N}function S(w,_,b,z,N,L){if(w.visible===!1)return;if(w.layers.test(N)&&(w.isMesh||w.isLine||w.isPoints)&&(w.castShadow||w.receiveShadow&&L===jr)&&(!w.frustumCulled||w.intersectsFrustum(i))){w.modelViewMatrix.multiplyMatrices(b.matrixWorldInverse,w.matrixWorld);const I=e.update(w),V=w.material;if(Array.isArray(V)){const Z=I.groups;for(let B=0,ce=Z.length;B<ce;B++){const K=Z[B],Q=V[K.materialIndex];if(Q&&Q.visible){const ie=A(w,Q,z,L);w.onBeforeShadow(n,w,_,b,I,ie,K),n.renderBufferDirect(b,null,I,ie,w,K),w.onAfterShadow(n,w,_,b,I,ie,K)}}}else if(V.visible){const Z=A(w,V,z,L);w.onBeforeShadow(n,w,_,b,I,Z,null),n.renderBufferDirect(b,null,I,Z,w,null),w.onAfterShadow(n,w,_,b,I,Z,null)}}const k=w.children;for(let I=0,V=k.length;I<V;I++)S(k[I],_,b,z,N,L)}function R(w){w.target.removeEventListener("dispose",R);for(const b in c){const z=c[b],N=w.target.uuid;N in z&&(z[N].dispose(),delete z[N])}}}function YM(n,e){function t(){let U=!1;const re=new ln;let te=null;const Te=new ln(0,0,0,0);return{setMask:function(ge){te!==ge&&!U&&(n.colorMask(ge,ge,ge,ge),te=ge)},setLocked:function(ge){U=ge},setClear:function(ge,Me,He,Ke,le){le===!0&&(ge*=Ke,Me*=Ke,He*=Ke),re.set(ge,Me,He,Ke),Te.equals(re)===!1&&(n.clearColor(ge,Me,He,Ke),Te.copy(re))},reset:function(){U=!1,te=null,Te.set(-1,0,0,0)}}}function i(){let U=!1,re=!1,te=null,Te=null,ge=null;return{setReversed:function(Me){if(re!==Me){const He=e.get("EXT_clip_control");Me?He.clipControlEXT(He.LOWER_LEFT_EXT,He.ZERO_TO_ONE_EXT):He.clipControlEXT(He.LOWER_LEFT_EXT,He.NEGATIVE_ONE_TO_ONE_EXT),re=Me;const Ke=ge;ge=null,this.setClear(Ke)}},getReversed:function(){return re},setTest:function(Me){Me?ye(n.DEPTH_TEST):We(n.DEPTH_TEST)},setMask:function(Me){te!==Me&&!U&&(n.depthMask(Me),te=Me)},setFunc:function(Me){if(re&&(Me=Jg[Me]),Te!==Me){switch(Me){case pc:n.depthFunc(n.NEVER);break;case mc:n.depthFunc(n.ALWAYS);break;case gc:n.depthFunc(n.LESS);break;case ha:n.depthFunc(n.LEQUAL);break;case _c:n.depthFunc(n.EQUAL);break;case vc:n.depthFunc(n.GEQUAL);break;case xc:n.depthFunc(n.GREATER);break;case Sc:n.depthFunc(n.NOTEQUAL);break;default:n.depthFunc(n.LEQUAL)}Te=Me}},setLocked:function(Me){U=Me},setClear:function(Me){ge!==Me&&(ge=Me,re&&(Me=1-Me),n.clearDepth(Me))},reset:function(){U=!1,te=null,Te=null,ge=null,re=!1}}}function s(){let U=!1,re=null,te=null,Te=null,ge=null,Me=null,He=null,Ke=null,le=null;return{setTest:function(Oe){U||(Oe?ye(n.STENCIL_TEST):We(n.STENCIL_TEST))},setMask:function(Oe){re!==Oe&&!U&&(n.stencilMask(Oe),re=Oe)},setFunc:function(Oe,Ze,Re){(te!==Oe||Te!==Ze||ge!==Re)&&(n.stencilFunc(Oe,Ze,Re),te=Oe,Te=Ze,ge=Re)},setOp:function(Oe,Ze,Re){(Me!==Oe||He!==Ze||Ke!==Re)&&(n.stencilOp(Oe,Ze,Re),Me=Oe,He=Ze,Ke=Re)},setLocked:function(Oe){U=Oe},setClear:function(Oe){le!==Oe&&(n.clearStencil(Oe),le=Oe)},reset:function(){U=!1,re=null,te=null,Te=null,ge=null,Me=null,He=null,Ke=null,le=null}}}const r=new t,a=new i,o=new s;let l={};const c=new WeakMap;let u={},d={},f={},h=new WeakMap,g=[],M=null,p=!1,m=null,x=null,A=null,S=null,R=null,w=null,_=null,b=new yt(0,0,0),z=0,N=!1,L=null,G=null,k=null,I=null,V=null;const Z=n.getParameter(n.MAX_COMBINED_TEXTURE_IMAGE_UNITS);let B=!1,ce=0;const K=n.getParameter(n.VERSION);K.indexOf("WebGL")!==-1?(ce=parseFloat(/^WebGL (\d)/.exec(K)[1]),B=ce>=1):K.indexOf("OpenGL ES")!==-1&&(ce=parseFloat(/^OpenGL ES (\d)/.exec(K)[1]),B=ce>=2);let Q=null,ie={};const he=n.getParameter(n.SCISSOR_BOX),fe=n.getParameter(n.VIEWPORT),j=new ln().fromArray(he),me=new ln().fromArray(fe);function ve(U,re,te,Te){const ge=new Uint8Array(4),Me=n.createTexture();n.bindTexture(U,Me),n.texParameteri(U,n.TEXTURE_MIN_FILTER,n.NEAREST),n.texParameteri(U,n.TEXTURE_MAG_FILTER,n.NEAREST);for(let He=0;He<te;He++)U===n.TEXTURE_3D||U===n.TEXTURE_2D_ARRAY?n.texImage3D(re,0,n.RGBA,1,1,Te,0,n.RGBA,n.UNSIGNED_BYTE,ge):n.texImage2D(re+He,0,n.RGBA,1,1,0,n.RGBA,n.UNSIGNED_BYTE,ge);return Me}const Ae={};Ae[n.TEXTURE_2D]=ve(n.TEXTURE_2D,n.TEXTURE_2D,1),Ae[n.TEXTURE_CUBE_MAP]=ve(n.TEXTURE_CUBE_MAP,n.TEXTURE_CUBE_MAP_POSITIVE_X,6),Ae[n.TEXTURE_2D_ARRAY]=ve(n.TEXTURE_2D_ARRAY,n.TEXTURE_2D_ARRAY,1,1),Ae[n.TEXTURE_3D]=ve(n.TEXTURE_3D,n.TEXTURE_3D,1,1),r.setClear(0,0,0,1),a.setClear(1),o.setClear(0),ye(n.DEPTH_TEST),a.setFunc(ha),Qt(!1),Rt(Df),ye(n.CULL_FACE),kt(gr);function ye(U){u[U]!==!0&&(n.enable(U),u[U]=!0)}function We(U){u[U]!==!1&&(n.disable(U),u[U]=!1)}function tt(U,re){return f[U]!==re?(n.bindFramebuffer(U,re),f[U]=re,U===n.DRAW_FRAMEBUFFER&&(f[n.FRAMEBUFFER]=re),U===n.FRAMEBUFFER&&(f[n.DRAW_FRAMEBUFFER]=re),!0):!1}function Ge(U,re){let te=g,Te=!1;if(U){te=h.get(re),te===void 0&&(te=[],h.set(re,te));const ge=U.textures;if(te.length!==ge.length||te[0]!==n.COLOR_ATTACHMENT0){for(let Me=0,He=ge.length;Me<He;Me++)te[Me]=n.COLOR_ATTACHMENT0+Me;te.length=ge.length,Te=!0}}else te[0]!==n.BACK&&(te[0]=n.BACK,Te=!0);Te&&n.drawBuffers(te)}function lt(U){return M!==U?(n.useProgram(U),M=U,!0):!1}const rt={[dr]:n.FUNC_ADD,[vg]:n.FUNC_SUBTRACT,[xg]:n.FUNC_REVERSE_SUBTRACT};rt[Sg]=n.MIN,rt[Mg]=n.MAX;const je={[yg]:n.ZERO,[Eg]:n.ONE,[Tg]:n.SRC_COLOR,[Vd]:n.SRC_ALPHA,[Pg]:n.SRC_ALPHA_SATURATE,[Rg]:n.DST_COLOR,[wg]:n.DST_ALPHA,[bg]:n.ONE_MINUS_SRC_COLOR,[Wd]:n.ONE_MINUS_SRC_ALPHA,[Cg]:n.ONE_MINUS_DST_COLOR,[Ag]:n.ONE_MINUS_DST_ALPHA,[Lg]:n.CONSTANT_COLOR,[Dg]:n.ONE_MINUS_CONSTANT_COLOR,[Ng]:n.CONSTANT_ALPHA,[Ig]:n.ONE_MINUS_CONSTANT_ALPHA};function kt(U,re,te,Te,ge,Me,He,Ke,le,Oe){if(U===gr){p===!0&&(We(n.BLEND),p=!1);return}if(p===!1&&(ye(n.BLEND),p=!0),U!==_g){if(U!==m||Oe!==N){if((x!==dr||R!==dr)&&(n.blendEquation(n.FUNC_ADD),x=dr,R=dr),Oe)switch(U){case _r:n.blendFuncSeparate(n.ONE,n.ONE_MINUS_SRC_ALPHA,n.ONE,n.ONE_MINUS_SRC_ALPHA);break;case dc:n.blendFunc(n.ONE,n.ONE);break;case Nf:n.blendFuncSeparate(n.ZERO,n.ONE_MINUS_SRC_COLOR,n.ZERO,n.ONE);break;case If:n.blendFuncSeparate(n.DST_COLOR,n.ONE_MINUS_SRC_ALPHA,n.ZERO,n.ONE);break;default:Mt("WebGLState: Invalid blending: ",U);break}else switch(U){case _r:n.blendFuncSeparate(n.SRC_ALPHA,n.ONE_MINUS_SRC_ALPHA,n.ONE,n.ONE_MINUS_SRC_ALPHA);break;case dc:n.blendFuncSeparate(n.SRC_ALPHA,n.ONE,n.ONE,n.ONE);break;case Nf:Mt("WebGLState: SubtractiveBlending requires material.premultipliedAlpha = true");break;case If:Mt("WebGLState: MultiplyBlending requires material.premultipliedAlpha = true");break;default:Mt("WebGLState: Invalid blending: ",U);break}A=null,S=null,w=null,_=null,b.set(0,0,0),z=0,m=U,N=Oe}return}ge=ge||re,Me=Me||te,He=He||Te,(re!==x||ge!==R)&&(n.blendEquationSeparate(rt[re],rt[ge]),x=re,R=ge),(te!==A||Te!==S||Me!==w||He!==_)&&(n.blendFuncSeparate(je[te],je[Te],je[Me],je[He]),A=te,S=Te,w=Me,_=He),(Ke.equals(b)===!1||le!==z)&&(n.blendColor(Ke.r,Ke.g,Ke.b,le),b.copy(Ke),z=le),m=U,N=!1}function It(U,re){U.side===Pi?We(n.CULL_FACE):ye(n.CULL_FACE);let te=U.side===Bn;re&&(te=!te),Qt(te),U.blending===_r&&U.transparent===!1?kt(gr):kt(U.blending,U.blendEquation,U.blendSrc,U.blendDst,U.blendEquationAlpha,U.blendSrcAlpha,U.blendDstAlpha,U.blendColor,U.blendAlpha,U.premultipliedAlpha),a.setFunc(U.depthFunc),a.setTest(U.depthTest),a.setMask(U.depthWrite),r.setMask(U.colorWrite);const Te=U.stencilWrite;o.setTest(Te),Te&&(o.setMask(U.stencilWriteMask),o.setFunc(U.stencilFunc,U.stencilRef,U.stencilFuncMask),o.setOp(U.stencilFail,U.stencilZFail,U.stencilZPass)),gt(U.polygonOffset,U.polygonOffsetFactor,U.polygonOffsetUnits),U.alphaToCoverage===!0?ye(n.SAMPLE_ALPHA_TO_COVERAGE):We(n.SAMPLE_ALPHA_TO_COVERAGE)}function Qt(U){L!==U&&(U?n.frontFace(n.CW):n.frontFace(n.CCW),L=U)}function Rt(U){U!==pg?(ye(n.CULL_FACE),U!==G&&(U===Df?n.cullFace(n.BACK):U===mg?n.cullFace(n.FRONT):n.cullFace(n.FRONT_AND_BACK))):We(n.CULL_FACE),G=U}function vn(U){U!==k&&(B&&n.lineWidth(U),k=U)}function gt(U,re,te){U?(ye(n.POLYGON_OFFSET_FILL),(I!==re||V!==te)&&(I=re,V=te,a.getReversed()&&(re=-re,te=-te),n.polygonOffset(re,te))):We(n.POLYGON_OFFSET_FILL)}function cn(U){U?ye(n.SCISSOR_TEST):We(n.SCISSOR_TEST)}function Xt(U){U===void 0&&(U=n.TEXTURE0+Z-1),Q!==U&&(n.activeTexture(U),Q=U)}function jt(U,re,te){te===void 0&&(Q===null?te=n.TEXTURE0+Z-1:te=Q);let Te=ie[te];Te===void 0&&(Te={type:void 0,texture:void 0},ie[te]=Te),(Te.type!==U||Te.texture!==re)&&(Q!==te&&(n.activeTexture(te),Q=te),n.bindTexture(U,re||Ae[U]),Te.type=U,Te.texture=re)}function F(){const U=ie[Q];U!==void 0&&U.type!==void 0&&(n.bindTexture(U.type,null),U.type=void 0,U.texture=void 0)}function Ce(){try{n.compressedTexImage2D(...arguments)}catch(U){Mt("WebGLState:",U)}}function Ye(){try{n.compressedTexImage3D(...arguments)}catch(U){Mt("WebGLState:",U)}}function nt(){try{n.texSubImage2D(...arguments)}catch(U){Mt("WebGLState:",U)}}function Ee(){try{n.texSubImage3D(...arguments)}catch(U){Mt("WebGLState:",U)}}function Pt(){try{n.compressedTexSubImage2D(...arguments)}catch(U){Mt("WebGLState:",U)}}function ke(){try{n.compressedTexSubImage3D(...arguments)}catch(U){Mt("WebGLState:",U)}}function qe(){try{n.texStorage2D(...arguments)}catch(U){Mt("WebGLState:",U)}}function C(){try{n.texStorage3D(...arguments)}catch(U){Mt("WebGLState:",U)}}function y(){try{n.texImage2D(...arguments)}catch(U){Mt("WebGLState:",U)}}function X(){try{n.texImage3D(...arguments)}catch(U){Mt("WebGLState:",U)}}function ue(U){return d[U]!==void 0?d[U]:n.getParameter(U)}function ae(U,re){d[U]!==re&&(n.pixelStorei(U,re),d[U]=re)}function _e(U){j.equals(U)===!1&&(n.scissor(U.x,U.y,U.z,U.w),j.copy(U))}function xe(U){me.equals(U)===!1&&(n.viewport(U.x,U.y,U.z,U.w),me.copy(U))}function ee(U,re){let te=c.get(re);te===void 0&&(te=new WeakMap,c.set(re,te));let Te=te.get(U);Te===void 0&&(Te=n.getUniformBlockIndex(re,U.name),n.uniformBlockBinding(re,Te,Te),te.set(U,Te))}function ne(U,re,te){const ge=c.get(re).get(U);l[ge]!==te&&(n.bindBufferBase(n.UNIFORM_BUFFER,ge,te),l[ge]=te)}function pe(){n.disable(n.BLEND),n.disable(n.CULL_FACE),n.disable(n.DEPTH_TEST),n.disable(n.POLYGON_OFFSET_FILL),n.disable(n.SCISSOR_TEST),n.disable(n.STENCIL_TEST),n.disable(n.SAMPLE_ALPHA_TO_COVERAGE),n.blendEquation(n.FUNC_ADD),n.blendFunc(n.ONE,n.ZERO),n.blendFuncSeparate(n.ONE,n.ZERO,n.ONE,n.ZERO),n.blendColor(0,0,0,0),n.colorMask(!0,!0,!0,!0),n.clearColor(0,0,0,0),n.depthMask(!0),n.depthFunc(n.LESS),a.setReversed(!1),n.clearDepth(1),n.stencilMask(4294967295),n.stencilFunc(n.ALWAYS,0,4294967295),n.stencilOp(n.KEEP,n.KEEP,n.KEEP),n.clearStencil(0),n.cullFace(n.BACK),n.frontFace(n.CCW),n.polygonOffset(0,0),n.activeTexture(n.TEXTURE0),n.bindFramebuffer(n.FRAMEBUFFER,null),n.bindFramebuffer(n.DRAW_FRAMEBUFFER,null),n.bindFramebuffer(n.READ_FRAMEBUFFER,null),n.useProgram(null),n.lineWidth(1),n.scissor(0,0,n.canvas.width,n.canvas.height),n.viewport(0,0,n.canvas.width,n.canvas.height),n.pixelStorei(n.PACK_ALIGNMENT,4),n.pixelStorei(n.UNPACK_ALIGNMENT,4),n.pixelStorei(n.UNPACK_FLIP_Y_WEBGL,!1),n.pixelStorei(n.UNPACK_PREMULTIPLY_ALPHA_WEBGL,!1),n.pixelStorei(n.UNPACK_COLORSPACE_CONVERSION_WEBGL,n.BROWSER_DEFAULT_WEBGL),n.pixelStorei(n.PACK_ROW_LENGTH,0),n.pixelStorei(n.PACK_SKIP_PIXELS,0),n.pixelStorei(n.PACK_SKIP_ROWS,0),n.pixelStorei(n.UNPACK_ROW_LENGTH,0),n.pixelStorei(n.UNPACK_IMAGE_HEIGHT,0),n.pixelStorei(n.UNPACK_SKIP_PIXELS,0),n.pixelStorei(n.UNPACK_SKIP_ROWS,0),n.pixelStorei(n.UNPACK_SKIP_IMAGES,0),u={},d={},Q=null,ie={},f={},l={},h=new WeakMap,g=[],M=null,p=!1,m=null,x=null,A=null,S=null,R=null,w=null,_=null,b=new yt(0,0,0),z=0,N=!1,L=null,G=null,k=null,I=null,V=null,j.set(0,0,n.canvas.width,n.canvas.height),me.set(0,0,n.canvas.width,n.canvas.height),r.reset(),a.reset(),o.reset()}return{buffers:{color:r,depth:a,stencil:o},enable:ye,disable:We,bindFramebuffer:tt,drawBuffers:Ge,useProgram:lt,setBlending:kt,setMaterial:It,setFlipSided:Qt,setCullFace:Rt,setLineWidth:vn,setPolygonOffset:gt,setScissorTest:cn,activeTexture:Xt,bindTexture:jt,unbindTexture:F,compressedTexImage2D:Ce,compressedTexImage3D:Ye,texImage2D:y,texImage3D:X,pixelStorei:ae,getParameter:ue,updateUBOMapping:ee,uniformBlockBinding:ne,texStorage2D:qe,texStorage3D:C,texSubImage2D:nt,texSubImage3D:Ee,compressedTexSubImage2D:Pt,compressedTexSubImage3D:ke,scissor:_e,viewport:xe,reset:pe}}function $M(n,e,t,i,s,r,a){const o=e.has("WEBGL_multisampled_render_to_texture")?e.get("WEBGL_multisampled_render_to_texture"):null,l=typeof navigator>"u"?!1:/OculusBrowser/g.test(navigator.userAgent),c=new Ve,u=new WeakMap,d=new Set;let f;const h=new WeakMap,g=new Set,M=new FinalizationRegistry(C=>g.delete(C));let p=!1;try{p=typeof OffscreenCanvas<"u"&&new OffscreenCanvas(1,1).getContext("2d")!==null}catch{}function m(C,y){return p?new OffscreenCanvas(C,y):Uo("canvas")}function x(C,y,X){let ue=1;const ae=qe(C);if((ae.width>X||ae.height>X)&&(ue=X/Math.max(ae.width,ae.height)),ue<1)if(typeof HTMLImageElement<"u"&&C instanceof HTMLImageElement||typeof HTMLCanvasElement<"u"&&C instanceof HTMLCanvasElement||typeof ImageBitmap<"u"&&C instanceof ImageBitmap||typeof VideoFrame<"u"&&C instanceof VideoFrame){const _e=Math.floor(ue*ae.width),xe=Math.floor(ue*ae.height);f===void 0&&(f=m(_e,xe));const ee=y?m(_e,xe):f;return ee.width=_e,ee.height=xe,ee.getContext("2d").drawImage(C,0,0,_e,xe),Je("WebGLRenderer: Texture has been resized from ("+ae.width+"x"+ae.height+") to ("+_e+"x"+xe+")."),ee}else return"data"in C&&Je("WebGLRenderer: Image in DataTexture is too big ("+ae.width+"x"+ae.height+")."),C;return C}function A(C){return C.generateMipmaps}function S(C){n.generateMipmap(C)}function R(C){return C.isWebGLCubeRenderTarget?n.TEXTURE_CUBE_MAP:C.isWebGL3DRenderTarget?n.TEXTURE_3D:C.isWebGLArrayRenderTarget||C.isCompressedArrayTexture?n.TEXTURE_2D_ARRAY:n.TEXTURE_2D}function w(C,y,X,ue,ae,_e=!1){if(C!==null){if(n[C]!==void 0)return n[C];Je("WebGLRenderer: Attempt to use non-existing WebGL internal format '"+C+"'")}let xe;ue&&(xe=e.get("EXT_texture_norm16"),xe||Je("WebGLRenderer: Unable to use normalized textures without EXT_texture_norm16 extension"));let ee=y;if(y===n.RED&&(X===n.FLOAT&&(ee=n.R32F),X===n.HALF_FLOAT&&(ee=n.R16F),X===n.UNSIGNED_BYTE&&(ee=n.R8),X===n.UNSIGNED_SHORT&&xe&&(ee=xe.R16_EXT),X===n.SHORT&&xe&&(ee=xe.R16_SNORM_EXT)),y===n.RED_INTEGER&&(X===n.UNSIGNED_BYTE&&(ee=n.R8UI),X===n.UNSIGNED_SHORT&&(ee=n.R16UI),X===n.UNSIGNED_INT&&(ee=n.R32UI),X===n.BYTE&&(ee=n.R8I),X===n.SHORT&&(ee=n.R16I),X===n.INT&&(ee=n.R32I)),y===n.RG&&(X===n.FLOAT&&(ee=n.RG32F),X===n.HALF_FLOAT&&(ee=n.RG16F),X===n.UNSIGNED_BYTE&&(ee=n.RG8),X===n.UNSIGNED_SHORT&&xe&&(ee=xe.RG16_EXT),X===n.SHORT&&xe&&(ee=xe.RG16_SNORM_EXT)),y===n.RG_INTEGER&&(X===n.UNSIGNED_BYTE&&(ee=n.RG8UI),X===n.UNSIGNED_SHORT&&(ee=n.RG16UI),X===n.UNSIGNED_INT&&(ee=n.RG32UI),X===n.BYTE&&(ee=n.RG8I),X===n.SHORT&&(ee=n.RG16I),X===n.INT&&(ee=n.RG32I)),y===n.RGB_INTEGER&&(X===n.UNSIGNED_BYTE&&(ee=n.RGB8UI),X===n.UNSIGNED_SHORT&&(ee=n.RGB16UI),X===n.UNSIGNED_INT&&(ee=n.RGB32UI),X===n.BYTE&&(ee=n.RGB8I),X===n.SHORT&&(ee=n.RGB16I),X===n.INT&&(ee=n.RGB32I)),y===n.RGBA_INTEGER&&(X===n.UNSIGNED_BYTE&&(ee=n.RGBA8UI),X===n.UNSIGNED_SHORT&&(ee=n.RGBA16UI),X===n.UNSIGNED_INT&&(ee=n.RGBA32UI),X===n.BYTE&&(ee=n.RGBA8I),X===n.SHORT&&(ee=n.RGBA16I),X===n.INT&&(ee=n.RGBA32I)),y===n.RGB&&(X===n.UNSIGNED_SHORT&&xe&&(ee=xe.RGB16_EXT),X===n.SHORT&&xe&&(ee=xe.RGB16_SNORM_EXT),X===n.UNSIGNED_INT_5_9_9_9_REV&&(ee=n.RGB9_E5),X===n.UNSIGNED_INT_10F_11F_11F_REV&&(ee=n.R11F_G11F_B10F)),y===n.RGBA){const ne=_e?Do:mt.getTransfer(ae);X===n.FLOAT&&(ee=n.RGBA32F),X===n.HALF_FLOAT&&(ee=n.RGBA16F),X===n.UNSIGNED_BYTE&&(ee=ne===At?n.SRGB8_ALPHA8:n.RGBA8),X===n.UNSIGNED_SHORT&&xe&&(ee=xe.RGBA16_EXT),X===n.SHORT&&xe&&(ee=xe.RGBA16_SNORM_EXT),X===n.UNSIGNED_SHORT_4_4_4_4&&(ee=n.RGBA4),X===n.UNSIGNED_SHORT_5_5_5_1&&(ee=n.RGB5_A1)}return(ee===n.R16F||ee===n.R32F||ee===n.RG16F||ee===n.RG32F||ee===n.RGBA16F||ee===n.RGBA32F)&&e.get("EXT_color_buffer_float"),ee}function _(C,y){let X;return C?y===null||y===Ui||y===yr?X=n.DEPTH24_STENCIL8:y===Li?X=n.DEPTH32F_STENCIL8:y===pa&&(X=n.DEPTH24_STENCIL8,Je("DepthTexture: 16 bit depth attachment is not supported with stencil. Using 24-bit attachment.")):y===null||y===Ui||y===yr?X=n.DEPTH_COMPONENT24:y===Li?X=n.DEPTH_COMPONENT32F:y===pa&&(X=n.DEPTH_COMPONENT16),X}function b(C,y){return A(C)===!0||C.isFramebufferTexture&&C.minFilter!==pn&&C.minFilter!==On?Math.log2(Math.max(y.width,y.height))+1:C.mipmaps.length>0?C.mipmaps.length:C.isCompressedTexture&&Array.isArray(C.image)?y.mipmaps.length:1}function z(C){const y=new WeakRef(C);i.get(C).__ref=y,g.add(y),M.register(C,y,y)}function N(C){const y=i.get(C).__ref;y!==void 0&&(g.delete(y),M.unregister(y))}function L(C){k(C.target)}function G(C){I(C.target)}function k(C){C.removeEventListener("dispose",L),N(C),Z(C),C.isVideoTexture&&u.delete(C),C.isHTMLTexture&&d.delete(C)}function I(C){C.removeEventListener("dispose",G),N(C),ce(C)}function V(){for(const C of g){const y=C.deref();y!==void 0&&(y.isRenderTarget===!0?I(y):k(y))}g.clear(),d.clear()}function Z(C){const y=i.get(C);if(y.__webglInit===void 0)return;const X=C.source,ue=h.get(X);if(ue){const ae=ue[y.__cacheKey];ae.usedTimes--,ae.usedTimes===0&&B(C),Object.keys(ue).length===0&&h.delete(X)}i.remove(C)}function B(C){const y=i.get(C);n.deleteTexture(y.__webglTexture);const X=C.source,ue=h.get(X);delete ue[y.__cacheKey],a.memory.textures--}function ce(C){const y=i.get(C);y.__depthDisposeCallback&&y.__depthDisposeCallback();const X=C.depthTexture;if(X&&X.renderTarget===C&&k(X),C.isWebGLCubeRenderTarget)for(let ae=0;ae<6;ae++){if(Array.isArray(y.__webglFramebuffer[ae]))for(let _e=0;_e<y.__webglFramebuffer[ae].length;_e++)n.deleteFramebuffer(y.__webglFramebuffer[ae][_e]);else n.deleteFramebuffer(y.__webglFramebuffer[ae]);y.__webglDepthbuffer&&n.deleteRenderbuffer(y.__webglDepthbuffer[ae])}else{if(Array.isArray(y.__webglFramebuffer))for(let ae=0;ae<y.__webglFramebuffer.length;ae++)n.deleteFramebuffer(y.__webglFramebuffer[ae]);else n.deleteFramebuffer(y.__webglFramebuffer);if(y.__webglDepthbuffer&&n.deleteRenderbuffer(y.__webglDepthbuffer),y.__webglMultisampledFramebuffer&&n.deleteFramebuffer(y.__webglMultisampledFramebuffer),y.__webglColorRenderbuffer)for(let ae=0;ae<y.__webglColorRenderbuffer.length;ae++)y.__webglColorRenderbuffer[ae]&&n.deleteRenderbuffer(y.__webglColorRenderbuffer[ae]);y.__webglDepthRenderbuffer&&n.deleteRenderbuffer(y.__webglDepthRenderbuffer)}const ue=C.textures;for(let ae=0,_e=ue.length;ae<_e;ae++){const xe=i.get(ue[ae]);xe.__webglTexture&&(n.deleteTexture(xe.__webglTexture),a.memory.textures--),i.remove(ue[ae])}i.remove(C)}let K=0;function Q(){K=0}function ie(){return K}function he(C){K=C}function fe(){const C=K;return C>=s.maxTextures&&Je("WebGLTextures: Trying to use "+(C+1)+" texture units while this GPU supports only "+s.maxTextures),K+=1,C}function j(C){const y=[];return y.push(C.wrapS),y.push(C.wrapT),y.push(C.wrapR||0),y.push(C.magFilter),y.push(C.minFilter),y.push(C.anisotropy),y.push(C.internalFormat),y.push(C.format),y.push(C.type),y.push(C.generateMipmaps),y.push(C.mipmapsAutoUpdate),y.push(C.premultiplyAlpha),y.push(C.flipY),y.push(C.unpackAlignment),y.push(C.colorSpace),y.join()}function me(C,y){const X=i.get(C);if(C.isVideoTexture&&Pt(C),C.isRenderTargetTexture===!1&&C.isExternalTexture!==!0&&C.version>0&&X.__version!==C.version){const ue=C.image;if(ue===null)Je("WebGLRenderer: Texture marked for update but no image data found.");else if(ue.complete===!1)Je("WebGLRenderer: Texture marked for update but image is incomplete");else{It(X,C,y);return}}else C.isExternalTexture&&(X.__webglTexture=C.sourceTexture?C.sourceTexture:null);t.bindTexture(n.TEXTURE_2D,X.__webglTexture,n.TEXTURE0+y)}function ve(C,y){const X=i.get(C);if(C.isRenderTargetTexture===!1&&C.version>0&&X.__version!==C.version){It(X,C,y);return}else C.isExternalTexture&&(X.__webglTexture=C.sourceTexture?C.sourceTexture:null);t.bindTexture(n.TEXTURE_2D_ARRAY,X.__webglTexture,n.TEXTURE0+y)}function Ae(C,y){const X=i.get(C);if(C.isRenderTargetTexture===!1&&C.version>0&&X.__version!==C.version){It(X,C,y);return}t.bindTexture(n.TEXTURE_3D,X.__webglTexture,n.TEXTURE0+y)}function ye(C,y){const X=i.get(C);if(C.version>0&&X.__version!==C.version){Qt(X,C,y);return}t.bindTexture(n.TEXTURE_CUBE_MAP,X.__webglTexture,n.TEXTURE0+y)}const We={[Mc]:n.REPEAT,[$i]:n.CLAMP_TO_EDGE,[yc]:n.MIRRORED_REPEAT},tt={[pn]:n.NEAREST,[Og]:n.NEAREST_MIPMAP_NEAREST,[La]:n.NEAREST_MIPMAP_LINEAR,[On]:n.LINEAR,[vl]:n.LINEAR_MIPMAP_NEAREST,[ms]:n.LINEAR_MIPMAP_LINEAR},Ge={[Gg]:n.NEVER,[cp]:n.ALWAYS,[Hg]:n.LESS,[op]:n.LEQUAL,[Vg]:n.EQUAL,[lp]:n.GEQUAL,[Wg]:n.GREATER,[Xg]:n.NOTEQUAL};function lt(C,y){if(y.type===Li&&e.has("OES_texture_float_linear")===!1&&(y.magFilter===On||y.magFilter===vl||y.magFilter===La||y.magFilter===ms||y.minFilter===On||y.minFilter===vl||y.minFilter===La||y.minFilter===ms)&&Je("WebGLRenderer: Unable to use linear filtering with floating point textures. OES_texture_float_linear not supported on this device."),n.texParameteri(C,n.TEXTURE_WRAP_S,We[y.wrapS]),n.texParameteri(C,n.TEXTURE_WRAP_T,We[y.wrapT]),(C===n.TEXTURE_3D||C===n.TEXTURE_2D_ARRAY)&&n.texParameteri(C,n.TEXTURE_WRAP_R,We[y.wrapR]),n.texParameteri(C,n.TEXTURE_MAG_FILTER,tt[y.magFilter]),n.texParameteri(C,n.TEXTURE_MIN_FILTER,tt[y.minFilter]),y.compareFunction&&(n.texParameteri(C,n.TEXTURE_COMPARE_MODE,n.COMPARE_REF_TO_TEXTURE),n.texParameteri(C,n.TEXTURE_COMPARE_FUNC,Ge[y.compareFunction])),e.has("EXT_texture_filter_anisotropic")===!0){if(y.magFilter===pn||y.minFilter!==La&&y.minFilter!==ms||y.type===Li&&e.has("OES_texture_float_linear")===!1)return;if(y.anisotropy>1||i.get(y).__currentAnisotropy){const X=e.get("EXT_texture_filter_anisotropic");n.texParameterf(C,X.TEXTURE_MAX_ANISOTROPY_EXT,Math.min(y.anisotropy,s.getMaxAnisotropy())),i.get(y).__currentAnisotropy=y.anisotropy}}}function rt(C,y){let X=!1;C.__webglInit===void 0&&(C.__webglInit=!0,y.addEventListener("dispose",L),z(y));const ue=y.source;let ae=h.get(ue);ae===void 0&&(ae={},h.set(ue,ae));const _e=j(y);if(_e!==C.__cacheKey){ae[_e]===void 0&&(ae[_e]={texture:n.createTexture(),usedTimes:0},a.memory.textures++,X=!0),ae[_e].usedTimes++;const xe=ae[C.__cacheKey];xe!==void 0&&(ae[C.__cacheKey].usedTimes--,xe.usedTimes===0&&B(y)),C.__cacheKey=_e,C.__webglTexture=ae[_e].texture}return X}function je(C,y,X){return Math.floor(Math.floor(C/X)/y)}function kt(C,y,X,ue){const _e=C.updateRanges;if(_e.length===0)t.texSubImage2D(n.TEXTURE_2D,0,0,0,y.width,y.height,X,ue,y.data);else{_e.sort((U,re)=>U.start-re.start);let xe=0;for(let U=1;U<_e.length;U++){const re=_e[xe],te=_e[U],Te=re.start+re.count,ge=je(te.start,y.width,4),Me=je(re.start,y.width,4);te.start<=Te+1&&ge===Me&&je(te.start+te.count-1,y.width,4)===ge?re.count=Math.max(re.count,te.start+te.count-re.start):(++xe,_e[xe]=te)}_e.length=xe+1;const ee=t.getParameter(n.UNPACK_ROW_LENGTH),ne=t.getParameter(n.UNPACK_SKIP_PIXELS),pe=t.getParameter(n.UNPACK_SKIP_ROWS);t.pixelStorei(n.UNPACK_ROW_LENGTH,y.width);for(let U=0,re=_e.length;U<re;U++){const te=_e[U],Te=Math.floor(te.start/4),ge=Math.ceil(te.count/4),Me=Te%y.width,He=Math.floor(Te/y.width),Ke=ge,le=1;t.pixelStorei(n.UNPACK_SKIP_PIXELS,Me),t.pixelStorei(n.UNPACK_SKIP_ROWS,He),t.texSubImage2D(n.TEXTURE_2D,0,Me,He,Ke,le,X,ue,y.data)}C.clearUpdateRanges(),t.pixelStorei(n.UNPACK_ROW_LENGTH,ee),t.pixelStorei(n.UNPACK_SKIP_PIXELS,ne),t.pixelStorei(n.UNPACK_SKIP_ROWS,pe)}}function It(C,y,X){let ue=n.TEXTURE_2D;(y.isDataArrayTexture||y.isCompressedArrayTexture)&&(ue=n.TEXTURE_2D_ARRAY),y.isData3DTexture&&(ue=n.TEXTURE_3D);const ae=rt(C,y),_e=y.source;t.bindTexture(ue,C.__webglTexture,n.TEXTURE0+X);const xe=i.get(_e);if(_e.version!==xe.__version||ae===!0){if(t.activeTexture(n.TEXTURE0+X),(typeof ImageBitmap<"u"&&y.image instanceof ImageBitmap)===!1){const le=mt.getPrimaries(mt.workingColorSpace),Oe=y.colorSpace===ps?null:mt.getPrimaries(y.colorSpace),Ze=y.colorSpace===ps||le===Oe?n.NONE:n.BROWSER_DEFAULT_WEBGL;t.pixelStorei(n.UNPACK_FLIP_Y_WEBGL,y.flipY),t.pixelStorei(n.UNPACK_PREMULTIPLY_ALPHA_WEBGL,y.premultiplyAlpha),t.pixelStorei(n.UNPACK_COLORSPACE_CONVERSION_WEBGL,Ze)}t.pixelStorei(n.UNPACK_ALIGNMENT,y.unpackAlignment);let ne=x(y.image,!1,s.maxTextureSize);ne=ke(y,ne);const pe=r.convert(y.format,y.colorSpace),U=r.convert(y.type);let re=w(y.internalFormat,pe,U,y.normalized,y.colorSpace,y.isVideoTexture);lt(ue,y);let te;const Te=y.mipmaps,ge=y.isVideoTexture!==!0,Me=xe.__version===void 0||ae===!0,He=_e.dataReady,Ke=b(y,ne);if(y.isDepthTexture)re=_(y.format===gs,y.type),Me&&(ge?t.texStorage2D(n.TEXTURE_2D,1,re,ne.width,ne.height):t.texImage2D(n.TEXTURE_2D,0,re,ne.width,ne.height,0,pe,U,null));else if(y.isDataTexture)if(Te.length>0){ge&&Me&&t.texStorage2D(n.TEXTURE_2D,Ke,re,Te[0].width,Te[0].height);for(let le=0,Oe=Te.length;le<Oe;le++)te=Te[le],ge?He&&t.texSubImage2D(n.TEXTURE_2D,le,0,0,te.width,te.height,pe,U,te.data):t.texImage2D(n.TEXTURE_2D,le,re,te.width,te.height,0,pe,U,te.data);y.generateMipmaps=!1}else ge?(Me&&t.texStorage2D(n.TEXTURE_2D,Ke,re,ne.width,ne.height),He&&kt(y,ne,pe,U)):t.texImage2D(n.TEXTURE_2D,0,re,ne.width,ne.height,0,pe,U,ne.data);else if(y.isCompressedTexture)if(y.isCompressedArrayTexture){ge&&Me&&t.texStorage3D(n.TEXTURE_2D_ARRAY,Ke,re,Te[0].width,Te[0].height,ne.depth);for(let le=0,Oe=Te.length;le<Oe;le++)if(te=Te[le],y.format!==Di)if(pe!==null)if(ge){if(He)if(y.layerUpdates.size>0){const Ze=hh(te.width,te.height,y.format,y.type);for(const Re of y.layerUpdates){const st=te.data.subarray(Re*Ze/te.data.BYTES_PER_ELEMENT,(Re+1)*Ze/te.data.BYTES_PER_ELEMENT);t.compressedTexSubImage3D(n.TEXTURE_2D_ARRAY,le,0,0,Re,te.width,te.height,1,pe,st)}}else t.compressedTexSubImage3D(n.TEXTURE_2D_ARRAY,le,0,0,0,te.width,te.height,ne.depth,pe,te.data)}else t.compressedTexImage3D(n.TEXTURE_2D_ARRAY,le,re,te.width,te.height,ne.depth,0,te.data,0,0);else Je("WebGLRenderer: Attempt to load unsupported compressed texture format in .uploadTexture()");else ge?He&&t.texSubImage3D(n.TEXTURE_2D_ARRAY,le,0,0,0,te.width,te.height,ne.depth,pe,U,te.data):t.texImage3D(n.TEXTURE_2D_ARRAY,le,re,te.width,te.height,ne.depth,0,pe,U,te.data);y.layerUpdates.size>0&&y.clearLayerUpdates()}else{ge&&Me&&t.texStorage2D(n.TEXTURE_2D,Ke,re,Te[0].width,Te[0].height);for(let le=0,Oe=Te.length;le<Oe;le++)te=Te[le],y.format!==Di?pe!==null?ge?He&&t.compressedTexSubImage2D(n.TEXTURE_2D,le,0,0,te.width,te.height,pe,te.data):t.compressedTexImage2D(n.TEXTURE_2D,le,re,te.width,te.height,0,te.data):Je("WebGLRenderer: Attempt to load unsupported compressed texture format in .uploadTexture()"):ge?He&&t.texSubImage2D(n.TEXTURE_2D,le,0,0,te.width,te.height,pe,U,te.data):t.texImage2D(n.TEXTURE_2D,le,re,te.width,te.height,0,pe,U,te.data)}else if(y.isDataArrayTexture)if(ge){if(Me&&t.texStorage3D(n.TEXTURE_2D_ARRAY,Ke,re,ne.width,ne.height,ne.depth),He)if(y.layerUpdates.size>0){const le=hh(ne.width,ne.height,y.format,y.type);for(const Oe of y.layerUpdates){const Ze=ne.data.subarray(Oe*le/ne.data.BYTES_PER_ELEMENT,(Oe+1)*le/ne.data.BYTES_PER_ELEMENT);t.texSubImage3D(n.TEXTURE_2D_ARRAY,0,0,0,Oe,ne.width,ne.height,1,pe,U,Ze)}y.clearLayerUpdates()}else t.texSubImage3D(n.TEXTURE_2D_ARRAY,0,0,0,0,ne.width,ne.height,ne.depth,pe,U,ne.data)}else t.texImage3D(n.TEXTURE_2D_ARRAY,0,re,ne.width,ne.height,ne.depth,0,pe,U,ne.data);else if(y.isData3DTexture)ge?(Me&&t.texStorage3D(n.TEXTURE_3D,Ke,re,ne.width,ne.height,ne.depth),He&&t.texSubImage3D(n.TEXTURE_3D,0,0,0,0,ne.width,ne.height,ne.depth,pe,U,ne.data)):t.texImage3D(n.TEXTURE_3D,0,re,ne.width,ne.height,ne.depth,0,pe,U,ne.data);else if(y.isFramebufferTexture){if(Me)if(ge)t.texStorage2D(n.TEXTURE_2D,Ke,re,ne.width,ne.height);else{let le=ne.width,Oe=ne.height;for(let Ze=0;Ze<Ke;Ze++)t.texImage2D(n.TEXTURE_2D,Ze,re,le,Oe,0,pe,U,null),le>>=1,Oe>>=1}}else if(y.isHTMLTexture){if("texElementImage2D"in n){const le=n.canvas;if(le.hasAttribute("layoutsubtree")||le.setAttribute("layoutsubtree","true"),ne.parentNode!==le){le.appendChild(ne),d.add(y),le.onpaint=Oe=>{const Ze=Oe.changedElements;for(const Re of d)Ze.includes(Re.image)&&(Re.needsUpdate=!0)},le.requestPaint();return}if(n.texElementImage2D.length===3)n.texElementImage2D(n.TEXTURE_2D,n.RGBA8,ne);else{const Ze=n.RGBA,Re=n.RGBA,st=n.UNSIGNED_BYTE;n.texElementImage2D(n.TEXTURE_2D,0,Ze,Re,st,ne)}n.texParameteri(n.TEXTURE_2D,n.TEXTURE_MIN_FILTER,n.LINEAR),n.texParameteri(n.TEXTURE_2D,n.TEXTURE_WRAP_S,n.CLAMP_TO_EDGE),n.texParameteri(n.TEXTURE_2D,n.TEXTURE_WRAP_T,n.CLAMP_TO_EDGE)}}else if(Te.length>0){if(ge&&Me){const le=qe(Te[0]);t.texStorage2D(n.TEXTURE_2D,Ke,re,le.width,le.height)}for(let le=0,Oe=Te.length;le<Oe;le++)te=Te[le],ge?He&&t.texSubImage2D(n.TEXTURE_2D,le,0,0,pe,U,te):t.texImage2D(n.TEXTURE_2D,le,re,pe,U,te);y.generateMipmaps=!1}else if(ge){if(Me){const le=qe(ne);t.texStorage2D(n.TEXTURE_2D,Ke,re,le.width,le.height)}He&&t.texSubImage2D(n.TEXTURE_2D,0,0,0,pe,U,ne)}else t.texImage2D(n.TEXTURE_2D,0,re,pe,U,ne);A(y)&&y.mipmapsAutoUpdate===!0&&S(ue),xe.__version=_e.version,y.onUpdate&&y.onUpdate(y)}C.__version=y.version}function Qt(C,y,X){if(y.image.length!==6)return;const ue=rt(C,y),ae=y.source;t.bindTexture(n.TEXTURE_CUBE_MAP,C.__webglTexture,n.TEXTURE0+X);const _e=i.get(ae);if(ae.version!==_e.__version||ue===!0){t.activeTexture(n.TEXTURE0+X);const xe=mt.getPrimaries(mt.workingColorSpace),ee=y.colorSpace===ps?null:mt.getPrimaries(y.colorSpace),ne=y.colorSpace===ps||xe===ee?n.NONE:n.BROWSER_DEFAULT_WEBGL;t.pixelStorei(n.UNPACK_FLIP_Y_WEBGL,y.flipY),t.pixelStorei(n.UNPACK_PREMULTIPLY_ALPHA_WEBGL,y.premultiplyAlpha),t.pixelStorei(n.UNPACK_ALIGNMENT,y.unpackAlignment),t.pixelStorei(n.UNPACK_COLORSPACE_CONVERSION_WEBGL,ne);const pe=y.isCompressedTexture||y.image[0].isCompressedTexture,U=y.image[0]&&y.image[0].isDataTexture,re=[];for(let Re=0;Re<6;Re++)!pe&&!U?re[Re]=x(y.image[Re],!0,s.maxCubemapSize):re[Re]=U?y.image[Re].image:y.image[Re],re[Re]=ke(y,re[Re]);const te=re[0],Te=r.convert(y.format,y.colorSpace),ge=r.convert(y.type);let Me=w(y.internalFormat,Te,ge,y.normalized,y.colorSpace);const He=y.isVideoTexture!==!0,Ke=_e.__version===void 0||ue===!0,le=ae.dataReady;let Oe=b(y,te);lt(n.TEXTURE_CUBE_MAP,y);let Ze;if(y.isDepthTexture){if(Me=_(y.format===gs,y.type),Ke)if(He)t.texStorage2D(n.TEXTURE_CUBE_MAP,1,Me,te.width,te.height);else for(let Re=0;Re<6;Re++)t.texImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,0,Me,te.width,te.height,0,Te,ge,null)}else if(pe){He&&Ke&&t.texStorage2D(n.TEXTURE_CUBE_MAP,Oe,Me,te.width,te.height);for(let Re=0;Re<6;Re++){Ze=re[Re].mipmaps;for(let st=0;st<Ze.length;st++){const Ut=Ze[st];y.format!==Di?Te!==null?He?le&&t.compressedTexSubImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st,0,0,Ut.width,Ut.height,Te,Ut.data):t.compressedTexImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st,Me,Ut.width,Ut.height,0,Ut.data):Je("WebGLRenderer: Attempt to load unsupported compressed texture format in .setTextureCube()"):He?le&&t.texSubImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st,0,0,Ut.width,Ut.height,Te,ge,Ut.data):t.texImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st,Me,Ut.width,Ut.height,0,Te,ge,Ut.data)}}}else{if(Ze=y.mipmaps,He&&Ke){Ze.length>0&&Oe++;const Re=qe(re[0]);t.texStorage2D(n.TEXTURE_CUBE_MAP,Oe,Me,Re.width,Re.height)}for(let Re=0;Re<6;Re++)if(U){He?le&&t.texSubImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,0,0,0,re[Re].width,re[Re].height,Te,ge,re[Re].data):t.texImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,0,Me,re[Re].width,re[Re].height,0,Te,ge,re[Re].data);for(let st=0;st<Ze.length;st++){const Cn=Ze[st].image[Re].image;He?le&&t.texSubImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st+1,0,0,Cn.width,Cn.height,Te,ge,Cn.data):t.texImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st+1,Me,Cn.width,Cn.height,0,Te,ge,Cn.data)}}else{He?le&&t.texSubImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,0,0,0,Te,ge,re[Re]):t.texImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,0,Me,Te,ge,re[Re]);for(let st=0;st<Ze.length;st++){const Ut=Ze[st];He?le&&t.texSubImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st+1,0,0,Te,ge,Ut.image[Re]):t.texImage2D(n.TEXTURE_CUBE_MAP_POSITIVE_X+Re,st+1,Me,Te,ge,Ut.image[Re])}}}A(y)&&y.mipmapsAutoUpdate===!0&&S(n.TEXTURE_CUBE_MAP),_e.__version=ae.version,y.onUpdate&&y.onUpdate(y)}C.__version=y.version}function Rt(C,y,X,ue,ae,_e){const xe=r.convert(X.format,X.colorSpace),ee=r.convert(X.type),ne=w(X.internalFormat,xe,ee,X.normalized,X.colorSpace),pe=i.get(y),U=i.get(X);if(U.__renderTarget=y,!pe.__hasExternalTextures){const re=Math.max(1,y.width>>_e),te=Math.max(1,y.height>>_e);ae===n.TEXTURE_3D||ae===n.TEXTURE_2D_ARRAY?t.texImage3D(ae,_e,ne,re,te,y.depth,0,xe,ee,null):t.texImage2D(ae,_e,ne,re,te,0,xe,ee,null)}t.bindFramebuffer(n.FRAMEBUFFER,C),Ee(y)?o.framebufferTexture2DMultisampleEXT(n.FRAMEBUFFER,ue,ae,U.__webglTexture,0,nt(y)):(ae===n.TEXTURE_2D||ae>=n.TEXTURE_CUBE_MAP_POSITIVE_X&&ae<=n.TEXTURE_CUBE_MAP_NEGATIVE_Z)&&n.framebufferTexture2D(n.FRAMEBUFFER,ue,ae,U.__webglTexture,_e),t.bindFramebuffer(n.FRAMEBUFFER,null)}function vn(C,y,X){if(n.bindRenderbuffer(n.RENDERBUFFER,C),y.depthBuffer){const ue=y.depthTexture,ae=ue&&ue.isDepthTexture?ue.type:null,_e=_(y.stencilBuffer,ae),xe=y.stencilBuffer?n.DEPTH_STENCIL_ATTACHMENT:n.DEPTH_ATTACHMENT;Ee(y)?o.renderbufferStorageMultisampleEXT(n.RENDERBUFFER,nt(y),_e,y.width,y.height):X?n.renderbufferStorageMultisample(n.RENDERBUFFER,nt(y),_e,y.width,y.height):n.renderbufferStorage(n.RENDERBUFFER,_e,y.width,y.height),n.framebufferRenderbuffer(n.FRAMEBUFFER,xe,n.RENDERBUFFER,C)}else{const ue=y.textures;for(let ae=0;ae<ue.length;ae++){const _e=ue[ae],xe=r.convert(_e.format,_e.colorSpace),ee=r.convert(_e.type),ne=w(_e.internalFormat,xe,ee,_e.normalized,_e.colorSpace);Ee(y)?o.renderbufferStorageMultisampleEXT(n.RENDERBUFFER,nt(y),ne,y.width,y.height):X?n.renderbufferStorageMultisample(n.RENDERBUFFER,nt(y),ne,y.width,y.height):n.renderbufferStorage(n.RENDERBUFFER,ne,y.width,y.height)}}n.bindRenderbuffer(n.RENDERBUFFER,null)}function gt(C,y,X){const ue=y.isWebGLCubeRenderTarget===!0;if(t.bindFramebuffer(n.FRAMEBUFFER,C),!(y.depthTexture&&y.depthTexture.isDepthTexture))throw new Error("THREE.WebGLTextures: renderTarget.depthTexture must be an instance of THREE.DepthTexture.");const ae=i.get(y.depthTexture);ae.__renderTarget=y;const _e=ue?y.depthTexture.image[0]:y.depthTexture.image;(!ae.__webglTexture||_e.width!==y.width||_e.height!==y.height)&&(_e.width=y.width,_e.height=y.height,y.depthTexture.needsUpdate=!0),ue?ye(y.depthTexture,0):me(y.depthTexture,0);const xe=ae.__webglTexture,ee=nt(y),ne=ue?n.TEXTURE_CUBE_MAP_POSITIVE_X+X:n.TEXTURE_2D,pe=y.depthTexture.format===gs?n.DEPTH_STENCIL_ATTACHMENT:n.DEPTH_ATTACHMENT;if(y.depthTexture.format===xs)Ee(y)?o.framebufferTexture2DMultisampleEXT(n.FRAMEBUFFER,pe,ne,xe,0,ee):n.framebufferTexture2D(n.FRAMEBUFFER,pe,ne,xe,0);else if(y.depthTexture.format===gs)Ee(y)?o.framebufferTexture2DMultisampleEXT(n.FRAMEBUFFER,pe,ne,xe,0,ee):n.framebufferTexture2D(n.FRAMEBUFFER,pe,ne,xe,0);else throw new Error("THREE.WebGLTextures: Unknown depthTexture format.")}function cn(C){const y=i.get(C),X=C.isWebGLCubeRenderTarget===!0;if(y.__boundDepthTexture!==C.depthTexture){const ue=C.depthTexture;if(y.__depthDisposeCallback&&y.__depthDisposeCallback(),ue){const ae=()=>{delete y.__boundDepthTexture,delete y.__depthDisposeCallback,ue.removeEventListener("dispose",ae)};ue.addEventListener("dispose",ae),y.__depthDisposeCallback=ae}y.__boundDepthTexture=ue}if(C.depthTexture&&!y.__autoAllocateDepthBuffer)if(X)for(let ue=0;ue<6;ue++)gt(y.__webglFramebuffer[ue],C,ue);else C.texture.mipmaps.length>0?gt(y.__webglFramebuffer[0],C,0):gt(y.__webglFramebuffer,C,0);else if(X){y.__webglDepthbuffer=[];for(let ue=0;ue<6;ue++)if(t.bindFramebuffer(n.FRAMEBUFFER,y.__webglFramebuffer[ue]),y.__webglDepthbuffer[ue]===void 0)y.__webglDepthbuffer[ue]=n.createRenderbuffer(),vn(y.__webglDepthbuffer[ue],C,!1);else{const ae=C.stencilBuffer?n.DEPTH_STENCIL_ATTACHMENT:n.DEPTH_ATTACHMENT,_e=y.__webglDepthbuffer[ue];n.bindRenderbuffer(n.RENDERBUFFER,_e),n.framebufferRenderbuffer(n.FRAMEBUFFER,ae,n.RENDERBUFFER,_e)}}else if(C.texture.mipmaps.length>0?t.bindFramebuffer(n.FRAMEBUFFER,y.__webglFramebuffer[0]):t.bindFramebuffer(n.FRAMEBUFFER,y.__webglFramebuffer),y.__webglDepthbuffer===void 0)y.__webglDepthbuffer=n.createRenderbuffer(),vn(y.__webglDepthbuffer,C,!1);else{const ae=C.stencilBuffer?n.DEPTH_STENCIL_ATTACHMENT:n.DEPTH_ATTACHMENT,_e=y.__webglDepthbuffer;n.bindRenderbuffer(n.RENDERBUFFER,_e),n.framebufferRenderbuffer(n.FRAMEBUFFER,ae,n.RENDERBUFFER,_e)}t.bindFramebuffer(n.FRAMEBUFFER,null)}function Xt(C,y,X){const ue=i.get(C);y!==void 0&&Rt(ue.__webglFramebuffer,C,C.texture,n.COLOR_ATTACHMENT0,n.TEXTURE_2D,0),X!==void 0&&cn(C)}function jt(C){const y=C.texture,X=i.get(C),ue=i.get(y);C.addEventListener("dispose",G),z(C);const ae=C.textures,_e=C.isWebGLCubeRenderTarget===!0,xe=ae.length>1;if(xe||(ue.__webglTexture===void 0&&(ue.__webglTexture=n.createTexture()),ue.__version=y.version,a.memory.textures++),_e){X.__webglFramebuffer=[];for(let ee=0;ee<6;ee++)if(y.mipmaps.length>0){X.__webglFramebuffer[ee]=[];for(let ne=0;ne<y.mipmaps.length;ne++)X.__webglFramebuffer[ee][ne]=n.createFramebuffer()}else X.__webglFramebuffer[ee]=n.createFramebuffer()}else{if(y.mipmaps.length>0){X.__webglFramebuffer=[];for(let ee=0;ee<y.mipmaps.length;ee++)X.__webglFramebuffer[ee]=n.createFramebuffer()}else X.__webglFramebuffer=n.createFramebuffer();if(xe)for(let ee=0,ne=ae.length;ee<ne;ee++){const pe=i.get(ae[ee]);pe.__webglTexture===void 0&&(pe.__webglTexture=n.createTexture(),a.memory.textures++)}if(C.samples>0&&Ee(C)===!1){X.__webglMultisampledFramebuffer=n.createFramebuffer(),X.__webglColorRenderbuffer=[],t.bindFramebuffer(n.FRAMEBUFFER,X.__webglMultisampledFramebuffer);for(let ee=0;ee<ae.length;ee++){const ne=ae[ee];X.__webglColorRenderbuffer[ee]=n.createRenderbuffer(),n.bindRenderbuffer(n.RENDERBUFFER,X.__webglColorRenderbuffer[ee]);const pe=r.convert(ne.format,ne.colorSpace),U=r.convert(ne.type),re=w(ne.internalFormat,pe,U,ne.normalized,ne.colorSpace,C.isXRRenderTarget===!0),te=nt(C);n.renderbufferStorageMultisample(n.RENDERBUFFER,te,re,C.width,C.height),n.framebufferRenderbuffer(n.FRAMEBUFFER,n.COLOR_ATTACHMENT0+ee,n.RENDERBUFFER,X.__webglColorRenderbuffer[ee])}n.bindRenderbuffer(n.RENDERBUFFER,null),C.depthBuffer&&(X.__webglDepthRenderbuffer=n.createRenderbuffer(),vn(X.__webglDepthRenderbuffer,C,!0)),t.bindFramebuffer(n.FRAMEBUFFER,null)}}if(_e){t.bindTexture(n.TEXTURE_CUBE_MAP,ue.__webglTexture),lt(n.TEXTURE_CUBE_MAP,y);for(let ee=0;ee<6;ee++)if(y.mipmaps.length>0)for(let ne=0;ne<y.mipmaps.length;ne++)Rt(X.__webglFramebuffer[ee][ne],C,y,n.COLOR_ATTACHMENT0,n.TEXTURE_CUBE_MAP_POSITIVE_X+ee,ne);else Rt(X.__webglFramebuffer[ee],C,y,n.COLOR_ATTACHMENT0,n.TEXTURE_CUBE_MAP_POSITIVE_X+ee,0);A(y)?S(n.TEXTURE_CUBE_MAP):y.mipmaps.length>0&&n.texParameteri(n.TEXTURE_CUBE_MAP,n.TEXTURE_MAX_LEVEL,y.mipmaps.length-1),t.unbindTexture()}else if(xe){for(let ee=0,ne=ae.length;ee<ne;ee++){const pe=ae[ee],U=i.get(pe);let re=n.TEXTURE_2D;(C.isWebGL3DRenderTarget||C.isWebGLArrayRenderTarget)&&(re=C.isWebGL3DRenderTarget?n.TEXTURE_3D:n.TEXTURE_2D_ARRAY),t.bindTexture(re,U.__webglTexture),lt(re,pe),Rt(X.__webglFramebuffer,C,pe,n.COLOR_ATTACHMENT0+ee,re,0),A(pe)&&S(re)}t.unbindTexture()}else{let ee=n.TEXTURE_2D;if((C.isWebGL3DRenderTarget||C.isWebGLArrayRenderTarget)&&(ee=C.isWebGL3DRenderTarget?n.TEXTURE_3D:n.TEXTURE_2D_ARRAY),t.bindTexture(ee,ue.__webglTexture),lt(ee,y),y.mipmaps.length>0)for(let ne=0;ne<y.mipmaps.length;ne++)Rt(X.__webglFramebuffer[ne],C,y,n.COLOR_ATTACHMENT0,ee,ne);else Rt(X.__webglFramebuffer,C,y,n.COLOR_ATTACHMENT0,ee,0);A(y)?S(ee):y.mipmaps.length>0&&n.texParameteri(ee,n.TEXTURE_MAX_LEVEL,y.mipmaps.length-1),t.unbindTexture()}C.depthBuffer&&cn(C)}function F(C){const y=C.textures;for(let X=0,ue=y.length;X<ue;X++){const ae=y[X];if(A(ae)&&ae.mipmapsAutoUpdate===!0){const _e=R(C),xe=i.get(ae).__webglTexture;t.bindTexture(_e,xe),S(_e),t.unbindTexture()}}}const Ce=[];function Ye(C){if(C.samples>0){if(Ee(C)===!1){const y=C.textures,X=C.width,ue=C.height;let ae=n.COLOR_BUFFER_BIT;const _e=C.stencilBuffer?n.DEPTH_STENCIL_ATTACHMENT:n.DEPTH_ATTACHMENT,xe=i.get(C),ee=y.length>1;if(ee)for(let pe=0;pe<y.length;pe++)t.bindFramebuffer(n.FRAMEBUFFER,xe.__webglMultisampledFramebuffer),n.framebufferRenderbuffer(n.FRAMEBUFFER,n.COLOR_ATTACHMENT0+pe,n.RENDERBUFFER,null),t.bindFramebuffer(n.FRAMEBUFFER,xe.__webglFramebuffer),n.framebufferTexture2D(n.DRAW_FRAMEBUFFER,n.COLOR_ATTACHMENT0+pe,n.TEXTURE_2D,null,0);t.bindFramebuffer(n.READ_FRAMEBUFFER,xe.__webglMultisampledFramebuffer),C.texture.mipmaps.length>0?t.bindFramebuffer(n.DRAW_FRAMEBUFFER,xe.__webglFramebuffer[0]):t.bindFramebuffer(n.DRAW_FRAMEBUFFER,xe.__webglFramebuffer);for(let pe=0;pe<y.length;pe++){if(C.resolveDepthBuffer&&(C.depthBuffer&&(ae|=n.DEPTH_BUFFER_BIT),C.stencilBuffer&&C.resolveStencilBuffer&&(ae|=n.STENCIL_BUFFER_BIT)),ee){n.framebufferRenderbuffer(n.READ_FRAMEBUFFER,n.COLOR_ATTACHMENT0,n.RENDERBUFFER,xe.__webglColorRenderbuffer[pe]);const U=i.get(y[pe]).__webglTexture;n.framebufferTexture2D(n.DRAW_FRAMEBUFFER,n.COLOR_ATTACHMENT0,n.TEXTURE_2D,U,0)}n.blitFramebuffer(0,0,X,ue,0,0,X,ue,ae,n.NEAREST),l===!0&&(Ce.length=0,Ce.push(n.COLOR_ATTACHMENT0+pe),C.depthBuffer&&C.storeMultisampledDepthBuffer===!1&&Ce.push(_e),n.invalidateFramebuffer(n.READ_FRAMEBUFFER,Ce))}if(t.bindFramebuffer(n.READ_FRAMEBUFFER,null),t.bindFramebuffer(n.DRAW_FRAMEBUFFER,null),ee)for(let pe=0;pe<y.length;pe++){t.bindFramebuffer(n.FRAMEBUFFER,xe.__webglMultisampledFramebuffer),n.framebufferRenderbuffer(n.FRAMEBUFFER,n.COLOR_ATTACHMENT0+pe,n.RENDERBUFFER,xe.__webglColorRenderbuffer[pe]);const U=i.get(y[pe]).__webglTexture;t.bindFramebuffer(n.FRAMEBUFFER,xe.__webglFramebuffer),n.framebufferTexture2D(n.DRAW_FRAMEBUFFER,n.COLOR_ATTACHMENT0+pe,n.TEXTURE_2D,U,0)}t.bindFramebuffer(n.DRAW_FRAMEBUFFER,xe.__webglMultisampledFramebuffer)}else if(C.depthBuffer&&C.storeMultisampledDepthBuffer===!1&&l){const y=C.stencilBuffer?n.DEPTH_STENCIL_ATTACHMENT:n.DEPTH_ATTACHMENT;n.invalidateFramebuffer(n.DRAW_FRAMEBUFFER,[y])}}}function nt(C){return Math.min(s.maxSamples,C.samples)}function Ee(C){const y=i.get(C);return C.samples>0&&e.has("WEBGL_multisampled_render_to_texture")===!0&&y.__useRenderToTexture!==!1}function Pt(C){const y=a.render.frame;u.get(C)!==y&&(u.set(C,y),C.update())}function ke(C,y){const X=C.colorSpace,ue=C.format,ae=C.type;return C.isCompressedTexture===!0||C.isVideoTexture===!0||X!==Lo&&X!==ps&&(mt.getTransfer(X)===At?(ue!==Di||ae!==ni)&&Je("WebGLTextures: sRGB encoded textures have to use RGBAFormat and UnsignedByteType."):Mt("WebGLTextures: Unsupported texture color space:",X)),y}function qe(C){return typeof HTMLImageElement<"u"&&C instanceof HTMLImageElement?(c.width=C.naturalWidth||C.width,c.height=C.naturalHeight||C.height):typeof VideoFrame<"u"&&C instanceof VideoFrame?(c.width=C.displayWidth,c.height=C.displayHeight):(c.width=C.width,c.height=C.height),c}this.allocateTextureUnit=fe,this.resetTextureUnits=Q,this.getTextureUnits=ie,this.setTextureUnits=he,this.setTexture2D=me,this.setTexture2DArray=ve,this.setTexture3D=Ae,this.setTextureCube=ye,this.rebindTextures=Xt,this.setupRenderTarget=jt,this.updateRenderTargetMipmap=F,this.updateMultisampleRenderTarget=Ye,this.setupDepthRenderbuffer=cn,this.setupFrameBufferTexture=Rt,this.useMultisampledRTT=Ee,this.dispose=V}function KM(n,e){function t(i,s=ps){let r;const a=mt.getTransfer(s);if(i===ni)return n.UNSIGNED_BYTE;if(i===bu)return n.UNSIGNED_SHORT_4_4_4_4;if(i===wu)return n.UNSIGNED_SHORT_5_5_5_1;if(i===np)return n.UNSIGNED_INT_5_9_9_9_REV;if(i===ip)return n.UNSIGNED_INT_10F_11F_11F_REV;if(i===ep)return n.BYTE;if(i===tp)return n.SHORT;if(i===pa)return n.UNSIGNED_SHORT;if(i===Tu)return n.INT;if(i===Ui)return n.UNSIGNED_INT;if(i===Li)return n.FLOAT;if(i===_i)return n.HALF_FLOAT;if(i===sp)return n.ALPHA;if(i===rp)return n.RGB;if(i===Di)return n.RGBA;if(i===xs)return n.DEPTH_COMPONENT;if(i===gs)return n.DEPTH_STENCIL;if(i===ap)return n.RED;if(i===Au)return n.RED_INTEGER;if(i===Fs)return n.RG;if(i===Ru)return n.RG_INTEGER;if(i===Cu)return n.RGBA_INTEGER;if(i===_o||i===vo||i===xo||i===So)if(a===At)if(r=e.get("WEBGL_compressed_texture_s3tc_srgb"),r!==null){if(i===_o)return r.COMPRESSED_SRGB_S3TC_DXT1_EXT;if(i===vo)return r.COMPRESSED_SRGB_ALPHA_S3TC_DXT1_EXT;if(i===xo)return r.COMPRESSED_SRGB_ALPHA_S3TC_DXT3_EXT;if(i===So)return r.COMPRESSED_SRGB_ALPHA_S3TC_DXT5_EXT}else return null;else if(r=e.get("WEBGL_compressed_texture_s3tc"),r!==null){if(i===_o)return r.COMPRESSED_RGB_S3TC_DXT1_EXT;if(i===vo)return r.COMPRESSED_RGBA_S3TC_DXT1_EXT;if(i===xo)return r.COMPRESSED_RGBA_S3TC_DXT3_EXT;if(i===So)return r.COMPRESSED_RGBA_S3TC_DXT5_EXT}else return null;if(i===Ec||i===Tc||i===bc||i===wc)if(r=e.get("WEBGL_compressed_texture_pvrtc"),r!==null){if(i===Ec)return r.COMPRESSED_RGB_PVRTC_4BPPV1_IMG;if(i===Tc)return r.COMPRESSED_RGB_PVRTC_2BPPV1_IMG;if(i===bc)return r.COMPRESSED_RGBA_PVRTC_4BPPV1_IMG;if(i===wc)return r.COMPRESSED_RGBA_PVRTC_2BPPV1_IMG}else return null;if(i===Ac||i===Rc||i===Cc||i===Pc||i===Lc||i===Co||i===Dc)if(r=e.get("WEBGL_compressed_texture_etc"),r!==null){if(i===Ac||i===Rc)return a===At?r.COMPRESSED_SRGB8_ETC2:r.COMPRESSED_RGB8_ETC2;if(i===Cc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ETC2_EAC:r.COMPRESSED_RGBA8_ETC2_EAC;if(i===Pc)return r.COMPRESSED_R11_EAC;if(i===Lc)return r.COMPRESSED_SIGNED_R11_EAC;if(i===Co)return r.COMPRESSED_RG11_EAC;if(i===Dc)return r.COMPRESSED_SIGNED_RG11_EAC}else return null;if(i===Nc||i===Ic||i===Uc||i===Fc||i===Oc||i===Bc||i===zc||i===kc||i===Gc||i===Hc||i===Vc||i===Wc||i===Xc||i===qc)if(r=e.get("WEBGL_compressed_texture_astc"),r!==null){if(i===Nc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_4x4_KHR:r.COMPRESSED_RGBA_ASTC_4x4_KHR;if(i===Ic)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_5x4_KHR:r.COMPRESSED_RGBA_ASTC_5x4_KHR;if(i===Uc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_5x5_KHR:r.COMPRESSED_RGBA_ASTC_5x5_KHR;if(i===Fc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_6x5_KHR:r.COMPRESSED_RGBA_ASTC_6x5_KHR;if(i===Oc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_6x6_KHR:r.COMPRESSED_RGBA_ASTC_6x6_KHR;if(i===Bc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_8x5_KHR:r.COMPRESSED_RGBA_ASTC_8x5_KHR;if(i===zc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_8x6_KHR:r.COMPRESSED_RGBA_ASTC_8x6_KHR;if(i===kc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_8x8_KHR:r.COMPRESSED_RGBA_ASTC_8x8_KHR;if(i===Gc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x5_KHR:r.COMPRESSED_RGBA_ASTC_10x5_KHR;if(i===Hc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x6_KHR:r.COMPRESSED_RGBA_ASTC_10x6_KHR;if(i===Vc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x8_KHR:r.COMPRESSED_RGBA_ASTC_10x8_KHR;if(i===Wc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x10_KHR:r.COMPRESSED_RGBA_ASTC_10x10_KHR;if(i===Xc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_12x10_KHR:r.COMPRESSED_RGBA_ASTC_12x10_KHR;if(i===qc)return a===At?r.COMPRESSED_SRGB8_ALPHA8_ASTC_12x12_KHR:r.COMPRESSED_RGBA_ASTC_12x12_KHR}else return null;if(i===Yc||i===$c||i===Kc)if(r=e.get("EXT_texture_compression_bptc"),r!==null){if(i===Yc)return a===At?r.COMPRESSED_SRGB_ALPHA_BPTC_UNORM_EXT:r.COMPRESSED_RGBA_BPTC_UNORM_EXT;if(i===$c)return r.COMPRESSED_RGB_BPTC_SIGNED_FLOAT_EXT;if(i===Kc)return r.COMPRESSED_RGB_BPTC_UNSIGNED_FLOAT_EXT}else return null;if(i===Zc||i===Jc||i===Po||i===Qc)if(r=e.get("EXT_texture_compression_rgtc"),r!==null){if(i===Zc)return r.COMPRESSED_RED_RGTC1_EXT;if(i===Jc)return r.COMPRESSED_SIGNED_RED_RGTC1_EXT;if(i===Po)return r.COMPRESSED_RED_GREEN_RGTC2_EXT;if(i===Qc)return r.COMPRESSED_SIGNED_RED_GREEN_RGTC2_EXT}else return null;return i===yr?n.UNSIGNED_INT_24_8:n[i]!==void 0?n[i]:null}return{convert:t}}const ZM=`
void main() {

	gl_Position = vec4( position, 1.0 );

}`,JM=`
uniform sampler2DArray depthColor;
uniform float depthWidth;
uniform float depthHeight;

void main() {

	vec2 coord = vec2( gl_FragCoord.x / depthWidth, gl_FragCoord.y / depthHeight );

	if ( coord.x >= 1.0 ) {

		gl_FragDepth = texture( depthColor, vec3( coord.x - 1.0, coord.y, 1 ) ).r;

	} else {

		gl_FragDepth = texture( depthColor, vec3( coord.x, coord.y, 0 ) ).r;

	}

}`;class QM{constructor(){this.texture=null,this.mesh=null,this.depthNear=0,this.depthFar=0}init(e,t){if(this.texture===null){const i=new Mp(e.texture);(e.depthNear!==t.depthNear||e.depthFar!==t.depthFar)&&(this.depthNear=e.depthNear,this.depthFar=e.depthFar),this.texture=i}}getMesh(e){if(this.texture!==null&&this.mesh===null){const t=e.cameras[0].viewport,i=new zs({vertexShader:ZM,fragmentShader:JM,uniforms:{depthColor:{value:this.texture},depthWidth:{value:t.z},depthHeight:{value:t.w}}});this.mesh=new Ii(new Yo(20,20),i)}return this.mesh}reset(){this.texture=null,this.mesh=null}getDepthTexture(){return this.texture}}class jM extends Gs{constructor(e,t){super();const i=this;let s=null,r=1,a=null,o="local-floor",l=1,c=null,u=null,d=null,f=null,h=null,g=null;const M=typeof XRWebGLBinding<"u",p=new QM,m={},x=t.getContextAttributes();let A=null,S=null;const R=[],w=[],_=new Ve;let b=null,z=null;const N=new di;N.viewport=new ln;const L=new di;L.viewport=new ln;const G=[N,L],k=new f0;let I=null,V=null;this.cameraAutoUpdate=!0,this.enabled=!1,this.isPresenting=!1,this.getController=function(j){let me=R[j];return me===void 0&&(me=new Al,R[j]=me),me.getTargetRaySpace()},this.getControllerGrip=function(j){let me=R[j];return me===void 0&&(me=new Al,R[j]=me),me.getGripSpace()},this.getHand=function(j){let me=R[j];return me===void 0&&(me=new Al,R[j]=me),me.getHandSpace()};function Z(j){const me=w.indexOf(j.inputSource);if(me===-1)return;const ve=R[me];ve!==void 0&&(ve.update(j.inputSource,j.frame,c||a),ve.dispatchEvent({type:j.type,data:j.inputSource}))}function B(){s.removeEventListener("select",Z),s.removeEventListener("selectstart",Z),s.removeEventListener("selectend",Z),s.removeEventListener("squeeze",Z),s.removeEventListener("squeezestart",Z),s.removeEventListener("squeezeend",Z),s.removeEventListener("end",B),s.removeEventListener("inputsourceschange",ce);for(let j=0;j<R.length;j++){const me=w[j];me!==null&&(w[j]=null,R[j].disconnect(me))}I=null,V=null,p.reset();for(const j in m)delete m[j];if(e.setRenderTarget(A),h=null,f=null,d=null,s=null,S=null,fe.stop(),i.isPresenting=!1,e.setPixelRatio(b),e.setSize(_.width,_.height,!1),z!==null){const j=z.camera;j.fov=z.fov,j.zoom=z.zoom,j.updateProjectionMatrix(),z=null}i.dispatchEvent({type:"sessionend"})}this.setFramebufferScaleFactor=function(j){r=j,i.isPresenting===!0&&Je("WebXRManager: Cannot change framebuffer scale while presenting.")},this.setReferenceSpaceType=function(j){o=j,i.isPresenting===!0&&Je("WebXRManager: Cannot change reference space type while presenting.")},this.getReferenceSpace=function(){return c||a},this.setReferenceSpace=function(j){c=j},this.getBaseLayer=function(){return f!==null?f:h},this.getBinding=function(){return d===null&&M&&(d=new XRWebGLBinding(s,t)),d},this.getFrame=function(){return g},this.getSession=function(){return s},this.setSession=async function(j){if(s=j,s!==null){if(A=e.getRenderTarget(),s.addEventListener("select",Z),s.addEventListener("selectstart",Z),s.addEventListener("selectend",Z),s.addEventListener("squeeze",Z),s.addEventListener("squeezestart",Z),s.addEventListener("squeezeend",Z),s.addEventListener("end",B),s.addEventListener("inputsourceschange",ce),x.xrCompatible!==!0&&await t.makeXRCompatible(),b=e.getPixelRatio(),e.getSize(_),M&&"createProjectionLayer"in XRWebGLBinding.prototype){let ve=null,Ae=null,ye=null;x.depth&&(ye=x.stencil?t.DEPTH24_STENCIL8:t.DEPTH_COMPONENT24,ve=x.stencil?gs:xs,Ae=x.stencil?yr:Ui);const We={colorFormat:t.RGBA8,depthFormat:ye,scaleFactor:r};d=this.getBinding(),f=d.createProjectionLayer(We),s.updateRenderState({layers:[f]}),e.setPixelRatio(1),e.setSize(f.textureWidth,f.textureHeight,!1),S=new ii(f.textureWidth,f.textureHeight,{format:Di,type:ni,depthTexture:new Er(f.textureWidth,f.textureHeight,Ae,void 0,void 0,void 0,void 0,void 0,void 0,ve),stencilBuffer:x.stencil,colorSpace:e.outputColorSpace,samples:x.antialias?4:0,resolveDepthBuffer:f.ignoreDepthValues===!1,resolveStencilBuffer:f.ignoreDepthValues===!1,storeMultisampledDepthBuffer:f.ignoreDepthValues===!1,storeMultisampledStencilBuffer:f.ignoreDepthValues===!1})}else{const ve={antialias:x.antialias,alpha:!0,depth:x.depth,stencil:x.stencil,framebufferScaleFactor:r};h=new XRWebGLLayer(s,t,ve),s.updateRenderState({baseLayer:h}),e.setPixelRatio(1),e.setSize(h.framebufferWidth,h.framebufferHeight,!1),S=new ii(h.framebufferWidth,h.framebufferHeight,{format:Di,type:ni,colorSpace:e.outputColorSpace,stencilBuffer:x.stencil,resolveDepthBuffer:h.ignoreDepthValues===!1,resolveStencilBuffer:h.ignoreDepthValues===!1,storeMultisampledDepthBuffer:h.ignoreDepthValues===!1,storeMultisampledStencilBuffer:h.ignoreDepthValues===!1})}S.isXRRenderTarget=!0,this.setFoveation(l),c=null,a=await s.requestReferenceSpace(o),fe.setContext(s),fe.start(),i.isPresenting=!0,i.dispatchEvent({type:"sessionstart"})}},this.getEnvironmentBlendMode=function(){if(s!==null)return s.environmentBlendMode},this.getDepthTexture=function(){return p.getDepthTexture()};function ce(j){for(let me=0;me<j.removed.length;me++){const ve=j.removed[me],Ae=w.indexOf(ve);Ae>=0&&(w[Ae]=null,R[Ae].disconnect(ve))}for(let me=0;me<j.added.length;me++){const ve=j.added[me];let Ae=w.indexOf(ve);if(Ae===-1){for(let We=0;We<R.length;We++)if(We>=w.length){w.push(ve),Ae=We;break}else if(w[We]===null){w[We]=ve,Ae=We;break}if(Ae===-1)break}const ye=R[Ae];ye&&ye.connect(ve)}}function K(j,me){me===null?j.matrixWorld.copy(j.matrix):j.matrixWorld.multiplyMatrices(me.matrixWorld,j.matrix),j.matrixWorldInverse.copy(j.matrixWorld).invert()}this.updateCamera=function(j){if(s===null)return;let me=j.near,ve=j.far;p.texture!==null&&(p.depthNear>0&&(me=p.depthNear),p.depthFar>0&&(ve=p.depthFar)),k.near=L.near=N.near=me,k.far=L.far=N.far=ve,(I!==k.near||V!==k.far)&&(s.updateRenderState({depthNear:k.near,depthFar:k.far}),I=k.near,V=k.far),k.layers.mask=j.layers.mask|6,N.layers.mask=k.layers.mask&-5,L.layers.mask=k.layers.mask&-3;const Ae=j.parent,ye=k.cameras;K(k,Ae);for(let We=0;We<ye.length;We++)K(ye[We],Ae);k.projectionMatrix.copy(N.projectionMatrix),k.projectionMatrixInverse.copy(N.projectionMatrixInverse),z===null&&j.isPerspectiveCamera&&(z={camera:j,fov:j.fov,zoom:j.zoom}),Q(j,k,Ae)};function Q(j,me,ve){ve===null?j.matrix.copy(me.matrixWorld):(j.matrix.copy(ve.matrixWorld),j.matrix.invert(),j.matrix.multiply(me.matrixWorld)),j.matrix.decompose(j.position,j.quaternion,j.scale),j.updateMatrixWorld(!0),j.projectionMatrix.copy(me.projectionMatrix),j.projectionMatrixInverse.copy(me.projectionMatrixInverse),j.isPerspectiveCamera&&(j.fov=jc*2*Math.atan(1/j.projectionMatrix.elements[5]),j.zoom=1)}this.getCamera=function(){return k},this.getFoveation=function(){if(!(f===null&&h===null))return l},this.setFoveation=function(j){l=j,f!==null&&(f.fixedFoveation=j),h!==null&&h.fixedFoveation!==void 0&&(h.fixedFoveation=j)},this.hasDepthSensing=function(){return p.texture!==null},this.getDepthSensingMesh=function(){return p.getMesh(k)},this.getCameraTexture=function(j){return m[j]};let ie=null;function he(j,me){if(u=me.getViewerPose(c||a),g=me,u!==null){const ve=u.views;h!==null&&(e.setRenderTargetFramebuffer(S,h.framebuffer),e.setRenderTarget(S));let Ae=!1;ve.length!==k.cameras.length&&(k.cameras.length=0,Ae=!0);for(let Ge=0;Ge<ve.length;Ge++){const lt=ve[Ge];let rt=null;if(h!==null)rt=h.getViewport(lt);else{const kt=d.getViewSubImage(f,lt);rt=kt.viewport,Ge===0&&(e.setRenderTargetTextures(S,kt.colorTexture,kt.depthStencilTexture),e.setRenderTarget(S))}let je=G[Ge];je===void 0&&(je=new di,je.layers.enable(Ge),je.viewport=new ln,G[Ge]=je),je.matrix.fromArray(lt.transform.matrix),je.matrix.decompose(je.position,je.quaternion,je.scale),je.projectionMatrix.fromArray(lt.projectionMatrix),je.projectionMatrixInverse.copy(je.projectionMatrix).invert(),je.viewport.set(rt.x,rt.y,rt.width,rt.height),Ge===0&&(k.matrix.copy(je.matrix),k.matrix.decompose(k.position,k.quaternion,k.scale)),Ae===!0&&k.cameras.push(je)}const ye=s.enabledFeatures;if(ye&&ye.includes("depth-sensing")&&s.depthUsage=="gpu-optimized"&&M){d=i.getBinding();const Ge=d.getDepthInformation(ve[0]);Ge&&Ge.isValid&&Ge.texture&&p.init(Ge,s.renderState)}if(ye&&ye.includes("camera-access")&&M){e.state.unbindTexture(),d=i.getBinding();for(let Ge=0;Ge<ve.length;Ge++){const lt=ve[Ge].camera;if(lt){let rt=m[lt];rt||(rt=new Mp,m[lt]=rt);const je=d.getCameraImage(lt);rt.sourceTexture=je}}}}for(let ve=0;ve<R.length;ve++){const Ae=w[ve],ye=R[ve];Ae!==null&&ye!==void 0&&ye.update(Ae,me,c||a)}ie&&ie(j,me),me.detectedPlanes&&i.dispatchEvent({type:"planesdetected",data:me}),g=null}const fe=new Np;fe.setAnimationLoop(he),this.setAnimationLoop=function(j){ie=j},this.dispose=function(){}}}const ey=new Wt,Vp=new it;Vp.set(-1,0,0,0,1,0,0,0,1);function ty(n,e){function t(p,m){p.matrixAutoUpdate===!0&&p.updateMatrix(),m.value.copy(p.matrix)}function i(p,m){m.color.getRGB(p.fogColor.value,Lp(n)),m.isFog?(p.fogNear.value=m.near,p.fogFar.value=m.far):m.isFogExp2&&(p.fogDensity.value=m.density)}function s(p,m,x,A,S){m.isNodeMaterial?m.uniformsNeedUpdate=!1:m.isMeshBasicMaterial?r(p,m):m.isMeshLambertMaterial?(r(p,m),m.envMap&&(p.envMapIntensity.value=m.envMapIntensity)):m.isMeshToonMaterial?(r(p,m),d(p,m)):m.isMeshPhongMaterial?(r(p,m),u(p,m),m.envMap&&(p.envMapIntensity.value=m.envMapIntensity)):m.isMeshStandardMaterial?(r(p,m),f(p,m),m.isMeshPhysicalMaterial&&h(p,m,S)):m.isMeshMatcapMaterial?(r(p,m),g(p,m)):m.isMeshDepthMaterial?r(p,m):m.isMeshDistanceMaterial?(r(p,m),M(p,m)):m.isMeshNormalMaterial?r(p,m):m.isLineBasicMaterial?(a(p,m),m.isLineDashedMaterial&&o(p,m)):m.isPointsMaterial?l(p,m,x,A):m.isSpriteMaterial?c(p,m):m.isShadowMaterial?(p.color.value.copy(m.color),p.opacity.value=m.opacity):m.isShaderMaterial&&(m.uniformsNeedUpdate=!1)}function r(p,m){p.opacity.value=m.opacity,m.color&&p.diffuse.value.copy(m.color),m.emissive&&p.emissive.value.copy(m.emissive).multiplyScalar(m.emissiveIntensity),m.map&&(p.map.value=m.map,t(m.map,p.mapTransform)),m.alphaMap&&(p.alphaMap.value=m.alphaMap,t(m.alphaMap,p.alphaMapTransform)),m.bumpMap&&(p.bumpMap.value=m.bumpMap,t(m.bumpMap,p.bumpMapTransform),p.bumpScale.value=m.bumpScale,m.side===Bn&&(p.bumpScale.value*=-1)),m.normalMap&&(p.normalMap.value=m.normalMap,t(m.normalMap,p.normalMapTransform),p.normalScale.value.copy(m.normalScale),m.side===Bn&&p.normalScale.value.negate()),m.displacementMap&&(p.displacementMap.value=m.displacementMap,t(m.displacementMap,p.displacementMapTransform),p.displacementScale.value=m.displacementScale,p.displacementBias.value=m.displacementBias),m.emissiveMap&&(p.emissiveMap.value=m.emissiveMap,t(m.emissiveMap,p.emissiveMapTransform)),m.specularMap&&(p.specularMap.value=m.specularMap,t(m.specularMap,p.specularMapTransform)),m.alphaTest>0&&(p.alphaTest.value=m.alphaTest);const x=e.get(m),A=x.envMap,S=x.envMapRotation;A&&(p.envMap.value=A,p.envMapRotation.value.setFromMatrix4(ey.makeRotationFromEuler(S)).transpose(),A.isCubeTexture&&A.isRenderTargetTexture===!1&&p.envMapRotation.value.premultiply(Vp),p.reflectivity.value=m.reflectivity,p.ior.value=m.ior,p.refractionRatio.value=m.refractionRatio),m.lightMap&&(p.lightMap.value=m.lightMap,p.lightMapIntensity.value=m.lightMapIntensity,t(m.lightMap,p.lightMapTransform)),m.aoMap&&(p.aoMap.value=m.aoMap,p.aoMapIntensity.value=m.aoMapIntensity,t(m.aoMap,p.aoMapTransform))}function a(p,m){p.diffuse.value.copy(m.color),p.opacity.value=m.opacity,m.map&&(p.map.value=m.map,t(m.map,p.mapTransform))}function o(p,m){p.dashSize.value=m.dashSize,p.totalSize.value=m.dashSize+m.gapSize,p.scale.value=m.scale}function l(p,m,x,A){p.diffuse.value.copy(m.color),p.opacity.value=m.opacity,p.size.value=m.size*x,p.scale.value=A*.5,m.map&&(p.map.value=m.map,t(m.map,p.uvTransform)),m.alphaMap&&(p.alphaMap.value=m.alphaMap,t(m.alphaMap,p.alphaMapTransform)),m.alphaTest>0&&(p.alphaTest.value=m.alphaTest)}function c(p,m){p.diffuse.value.copy(m.color),p.opacity.value=m.opacity,p.rotation.value=m.rotation,m.map&&(p.map.value=m.map,t(m.map,p.mapTransform)),m.alphaMap&&(p.alphaMap.value=m.alphaMap,t(m.alphaMap,p.alphaMapTransform)),m.alphaTest>0&&(p.alphaTest.value=m.alphaTest)}function u(p,m){p.specular.value.copy(m.specular),p.shininess.value=Math.max(m.shininess,1e-4)}function d(p,m){m.gradientMap&&(p.gradientMap.value=m.gradientMap)}function f(p,m){p.metalness.value=m.metalness,m.metalnessMap&&(p.metalnessMap.value=m.metalnessMap,t(m.metalnessMap,p.metalnessMapTransform)),p.roughness.value=m.roughness,m.roughnessMap&&(p.roughnessMap.value=m.roughnessMap,t(m.roughnessMap,p.roughnessMapTransform)),m.envMap&&(p.envMapIntensity.value=m.envMapIntensity)}function h(p,m,x){p.ior.value=m.ior,m.diffuseRoughness>0&&(p.diffuseRoughness.value=m.diffuseRoughness,m.diffuseRoughnessMap&&(p.diffuseRoughnessMap.value=m.diffuseRoughnessMap,t(m.diffuseRoughnessMap,p.diffuseRoughnessMapTransform))),m.sheen>0&&(p.sheenColor.value.copy(m.sheenColor).multiplyScalar(m.sheen),p.sheenRoughness.value=m.sheenRoughness,m.sheenColorMap&&(p.sheenColorMap.value=m.sheenColorMap,t(m.sheenColorMap,p.sheenColorMapTransform)),m.sheenRoughnessMap&&(p.sheenRoughnessMap.value=m.sheenRoughnessMap,t(m.sheenRoughnessMap,p.sheenRoughnessMapTransform))),m.clearcoat>0&&(p.clearcoat.value=m.clearcoat,p.clearcoatRoughness.value=m.clearcoatRoughness,m.clearcoatMap&&(p.clearcoatMap.value=m.clearcoatMap,t(m.clearcoatMap,p.clearcoatMapTransform)),m.clearcoatRoughnessMap&&(p.clearcoatRoughnessMap.value=m.clearcoatRoughnessMap,t(m.clearcoatRoughnessMap,p.clearcoatRoughnessMapTransform)),m.clearcoatNormalMap&&(p.clearcoatNormalMap.value=m.clearcoatNormalMap,t(m.clearcoatNormalMap,p.clearcoatNormalMapTransform),p.clearcoatNormalScale.value.copy(m.clearcoatNormalScale),m.side===Bn&&p.clearcoatNormalScale.value.negate())),m.dispersion>0&&(p.dispersion.value=m.dispersion),m.retroreflectivity>0&&(p.retroreflectivity.value=m.retroreflectivity),m.iridescence>0&&(p.iridescence.value=m.iridescence,p.iridescenceIOR.value=m.iridescenceIOR,p.iridescenceThicknessMinimum.value=m.iridescenceThicknessMinimum,p.iridescenceThicknessMaximum.value=m.iridescenceThicknessMaximum,m.iridescenceMap&&(p.iridescenceMap.value=m.iridescenceMap,t(m.iridescenceMap,p.iridescenceMapTransform)),m.iridescenceThicknessMap&&(p.iridescenceThicknessMap.value=m.iridescenceThicknessMap,t(m.iridescenceThicknessMap,p.iridescenceThicknessMapTransform))),m.transmission>0&&(p.transmission.value=m.transmission,p.transmissionSamplerMap.value=x.texture,p.transmissionSamplerSize.value.set(x.width,x.height),m.transmissionMap&&(p.transmissionMap.value=m.transmissionMap,t(m.transmissionMap,p.transmissionMapTransform)),p.thickness.value=m.thickness,m.thicknessMap&&(p.thicknessMap.value=m.thicknessMap,t(m.thicknessMap,p.thicknessMapTransform)),p.attenuationDistance.value=m.attenuationDistance,p.attenuationColor.value.copy(m.attenuationColor)),m.anisotropy>0&&(p.anisotropyVector.value.set(m.anisotropy*Math.cos(m.anisotropyRotation),m.anisotropy*Math.sin(m.anisotropyRotation)),m.anisotropyMap&&(p.anisotropyMap.value=m.anisotropyMap,t(m.anisotropyMap,p.anisotropyMapTransform))),p.specularIntensity.value=m.specularIntensity,p.specularColor.value.copy(m.specularColor),m.specularColorMap&&(p.specularColorMap.value=m.specularColorMap,t(m.specularColorMap,p.specularColorMapTransform)),m.specularIntensityMap&&(p.specularIntensityMap.value=m.specularIntensityMap,t(m.specularIntensityMap,p.specularIntensityMapTransform))}function g(p,m){m.matcap&&(p.matcap.value=m.matcap)}function M(p,m){const x=e.get(m).light;p.referencePosition.value.setFromMatrixPosition(x.matrixWorld),p.nearDistance.value=x.shadow.camera.near,p.farDistance.value=x.shadow.camera.far}return{refreshFogUniforms:i,refreshMaterialUniforms:s}}function ny(n,e,t,i){let s={},r={};function a(x,A){const S=A.program;i.uniformBlockBinding(x,S,s[x.id])}function o(x,A){let S=s[x.id];S===void 0&&(g(x),S=l(x),s[x.id]=S,x.addEventListener("dispose",p));const R=A.program;i.updateUBOMapping(x,R);const w=e.render.frame;r[x.id]!==w&&(c(x),r[x.id]=w)}function l(x){const A=n.createBuffer(),S=x.__size,R=x.usage;return n.bindBuffer(n.UNIFORM_BUFFER,A),n.bufferData(n.UNIFORM_BUFFER,S,R),n.bindBuffer(n.UNIFORM_BUFFER,null),A}function c(x){const A=s[x.id],S=x.uniforms,R=x.__cache;n.bindBuffer(n.UNIFORM_BUFFER,A);for(let w=0,_=S.length;w<_;w++){const b=S[w];if(Array.isArray(b))for(let z=0,N=b.length;z<N;z++)u(b[z],w,z,R);else u(b,w,0,R)}n.bindBuffer(n.UNIFORM_BUFFER,null)}function u(x,A,S,R){if(f(x,A,S,R)===!0){const w=x.__offset,_=x.value;if(Array.isArray(_)){let b=0;for(let z=0;z<_.length;z++){const N=_[z],L=M(N,!0);d(N,x.__data,b),b+=L.storage/Float32Array.BYTES_PER_ELEMENT}}else d(_,x.__data,0);n.bufferSubData(n.UNIFORM_BUFFER,w,x.__data)}}function d(x,A,S){typeof x=="number"||typeof x=="boolean"?A[S]=x:x.isMatrix3?(A[S]=x.elements[0],A[S+1]=x.elements[1],A[S+2]=x.elements[2],A[S+3]=0,A[S+4]=x.elements[3],A[S+5]=x.elements[4],A[S+6]=x.elements[5],A[S+7]=0,A[S+8]=x.elements[6],A[S+9]=x.elements[7],A[S+10]=x.elements[8],A[S+11]=0):ArrayBuffer.isView(x)?A.set(x.subarray(0,A.length-S),S):x.toArray(A,S)}function f(x,A,S,R){const w=x.value,_=A+"_"+S;if(Array.isArray(w)){R[_]===void 0&&(R[_]=[]);const b=R[_];let z=!1;for(let N=0;N<w.length;N++)h(w[N],b,N)===!0&&(z=!0);return z}return h(w,R,_)}function h(x,A,S){if(A[S]===void 0)return typeof x=="number"||typeof x=="boolean"?A[S]=x:ArrayBuffer.isView(x)?A[S]=x.slice():A[S]=x.clone(),!0;{const R=A[S];if(typeof x=="number"||typeof x=="boolean"){if(R!==x)return A[S]=x,!0}else{if(ArrayBuffer.isView(x))return!0;if(R.equals(x)===!1)return R.copy(x),!0}}return!1}function g(x){const A=x.uniforms;let S=0;const R=16;for(let _=0,b=A.length;_<b;_++){const z=Array.isArray(A[_])?A[_]:[A[_]];for(let N=0,L=z.length;N<L;N++){const G=z[N],k=Array.isArray(G.value)?G.value:[G.value],I=Array.isArray(A[_])||Array.isArray(G.value);let V=S;for(let B=0,ce=k.length;B<ce;B++){const K=k[B],Q=M(K,I),ie=S%R,he=ie%Q.boundary,fe=ie+he;S+=he,fe!==0&&R-fe<Q.storage&&(S+=R-fe),B===0&&(V=S),S+=Q.storage}const Z=G.type==="int"?Int32Array:G.type==="uint"?Uint32Array:Float32Array;G.__data=new Z((S-V)/Float32Array.BYTES_PER_ELEMENT),G.__offset=V}}const w=S%R;return w>0&&(S+=R-w),x.__size=S,x.__cache={},this}function M(x,A){const S={boundary:0,storage:0};return typeof x=="number"||typeof x=="boolean"?(S.boundary=4,S.storage=4):x.isVector2?(S.boundary=8,S.storage=8):x.isVector3||x.isColor?(S.boundary=16,S.storage=12):x.isVector4?(S.boundary=16,S.storage=16):x.isMatrix3?(S.boundary=16,S.storage=48):x.isMatrix4?(S.boundary=16,S.storage=64):x.isTexture?Je("WebGLRenderer: Texture samplers can not be part of an uniforms group."):ArrayBuffer.isView(x)?(S.boundary=16,S.storage=x.byteLength):Je("WebGLRenderer: Unsupported uniform value type.",x),A===!0&&(S.boundary=16,S.storage=Math.ceil(S.storage/16)*16),S}function p(x){const A=x.target;A.removeEventListener("dispose",p),n.deleteBuffer(s[A.id]),delete s[A.id],delete r[A.id]}function m(){for(const x in s)n.deleteBuffer(s[x]);s={},r={}}return{bind:a,update:o,dispose:m}}const iy=new Uint16Array([12469,15057,12620,14925,13266,14620,13807,14376,14323,13990,14545,13625,14713,13328,14840,12882,14931,12528,14996,12233,15039,11829,15066,11525,15080,11295,15085,10976,15082,10705,15073,10495,13880,14564,13898,14542,13977,14430,14158,14124,14393,13732,14556,13410,14702,12996,14814,12596,14891,12291,14937,11834,14957,11489,14958,11194,14943,10803,14921,10506,14893,10278,14858,9960,14484,14039,14487,14025,14499,13941,14524,13740,14574,13468,14654,13106,14743,12678,14818,12344,14867,11893,14889,11509,14893,11180,14881,10751,14852,10428,14812,10128,14765,9754,14712,9466,14764,13480,14764,13475,14766,13440,14766,13347,14769,13070,14786,12713,14816,12387,14844,11957,14860,11549,14868,11215,14855,10751,14825,10403,14782,10044,14729,9651,14666,9352,14599,9029,14967,12835,14966,12831,14963,12804,14954,12723,14936,12564,14917,12347,14900,11958,14886,11569,14878,11247,14859,10765,14828,10401,14784,10011,14727,9600,14660,9289,14586,8893,14508,8533,15111,12234,15110,12234,15104,12216,15092,12156,15067,12010,15028,11776,14981,11500,14942,11205,14902,10752,14861,10393,14812,9991,14752,9570,14682,9252,14603,8808,14519,8445,14431,8145,15209,11449,15208,11451,15202,11451,15190,11438,15163,11384,15117,11274,15055,10979,14994,10648,14932,10343,14871,9936,14803,9532,14729,9218,14645,8742,14556,8381,14461,8020,14365,7603,15273,10603,15272,10607,15267,10619,15256,10631,15231,10614,15182,10535,15118,10389,15042,10167,14963,9787,14883,9447,14800,9115,14710,8665,14615,8318,14514,7911,14411,7507,14279,7198,15314,9675,15313,9683,15309,9712,15298,9759,15277,9797,15229,9773,15166,9668,15084,9487,14995,9274,14898,8910,14800,8539,14697,8234,14590,7790,14479,7409,14367,7067,14178,6621,15337,8619,15337,8631,15333,8677,15325,8769,15305,8871,15264,8940,15202,8909,15119,8775,15022,8565,14916,8328,14804,8009,14688,7614,14569,7287,14448,6888,14321,6483,14088,6171,15350,7402,15350,7419,15347,7480,15340,7613,15322,7804,15287,7973,15229,8057,15148,8012,15046,7846,14933,7611,14810,7357,14682,7069,14552,6656,14421,6316,14251,5948,14007,5528,15356,5942,15356,5977,15353,6119,15348,6294,15332,6551,15302,6824,15249,7044,15171,7122,15070,7050,14949,6861,14818,6611,14679,6349,14538,6067,14398,5651,14189,5311,13935,4958,15359,4123,15359,4153,15356,4296,15353,4646,15338,5160,15311,5508,15263,5829,15188,6042,15088,6094,14966,6001,14826,5796,14678,5543,14527,5287,14377,4985,14133,4586,13869,4257,15360,1563,15360,1642,15358,2076,15354,2636,15341,3350,15317,4019,15273,4429,15203,4732,15105,4911,14981,4932,14836,4818,14679,4621,14517,4386,14359,4156,14083,3795,13808,3437,15360,122,15360,137,15358,285,15355,636,15344,1274,15322,2177,15281,2765,15215,3223,15120,3451,14995,3569,14846,3567,14681,3466,14511,3305,14344,3121,14037,2800,13753,2467,15360,0,15360,1,15359,21,15355,89,15346,253,15325,479,15287,796,15225,1148,15133,1492,15008,1749,14856,1882,14685,1886,14506,1783,14324,1608,13996,1398,13702,1183]);let wi=null;function sy(){return wi===null&&(wi=new y_(iy,16,16,Fs,_i),wi.name="DFG_LUT",wi.minFilter=On,wi.magFilter=On,wi.wrapS=$i,wi.wrapT=$i,wi.generateMipmaps=!1,wi.needsUpdate=!0),wi}class ry{constructor(e={}){const{canvas:t=Kg(),context:i=null,depth:s=!0,stencil:r=!1,alpha:a=!1,antialias:o=!1,premultipliedAlpha:l=!0,preserveDrawingBuffer:c=!1,powerPreference:u="default",failIfMajorPerformanceCaveat:d=!1,reversedDepthBuffer:f=!1,outputBufferType:h=ni}=e;this.isWebGLRenderer=!0;let g;if(i!==null){if(typeof WebGLRenderingContext<"u"&&i instanceof WebGLRenderingContext)throw new Error("THREE.WebGLRenderer: WebGL 1 is not supported since r163.");g=i.getContextAttributes().alpha}else g=a;const M=h,p=new Set([Cu,Ru,Au]),m=new Set([ni,Ui,pa,yr,bu,wu]),x=new Uint32Array(4),A=new Int32Array(4),S={textures:[],min:[],max:[],resolution:[]};let R=null,w=null;const _=[],b=[];let z=null;this.domElement=t,this.debug={checkShaderErrors:!0,diagnostics:{keywords:!1},onShaderError:null},this.autoClear=!0,this.autoClearColor=!0,this.autoClearDepth=!0,this.autoClearStencil=!0,this.sortObjects=!0,this.clippingPlanes=[],this.localClippingEnabled=!1,this.toneMapping=Zi,this.toneMappingExposure=1,this.transmissionResolutionScale=1;const N=this;let L=!1,G=null,k=null,I=null,V=null;this._outputColorSpace=ei;let Z=0,B=0,ce=null,K=-1,Q=null;const ie=new ln,he=new ln;let fe=null;const j=new yt(0);let me=0,ve=t.width,Ae=t.height,ye=1,We=null,tt=null;const Ge=new ln(0,0,ve,Ae),lt=new ln(0,0,ve,Ae);let rt=!1;const je=new Fo,kt=new Du;let It=!1,Qt=!1;const Rt=new Wt,vn=new W,gt=new ln,cn={background:null,fog:null,environment:null,overrideMaterial:null,isScene:!0};let Xt=!1;function jt(){return ce===null?ye:1}let F=i;function Ce(T,O){return t.getContext(T,O)}let Ye,nt,Ee,Pt,ke,qe,C,y,X,ue,ae,_e,xe,ee,ne,pe,U,re,te,Te,ge,Me,He;try{const T={alpha:!0,depth:s,stencil:r,antialias:o,premultipliedAlpha:l,preserveDrawingBuffer:c,powerPreference:u,failIfMajorPerformanceCaveat:d};if("setAttribute"in t&&t.setAttribute("data-engine",`three.js r${Eu}`),t.addEventListener("webglcontextlost",Oe,!1),t.addEventListener("webglcontextrestored",Ze,!1),t.addEventListener("webglcontextcreationerror",Re,!1),F===null){const O="webgl2";if(F=Ce(O,T),F===null)throw Ce(O)?new Error("THREE.WebGLRenderer: Error creating WebGL context with your selected attributes."):new Error("THREE.WebGLRenderer: Error creating WebGL context.")}Ke()}catch(T){throw t.removeEventListener("webglcontextlost",Oe,!1),t.removeEventListener("webglcontextrestored",Ze,!1),t.removeEventListener("webglcontextcreationerror",Re,!1),Mt("WebGLRenderer: "+T.message),T}function Ke(){Ye=new lS(F),Ye.init(),ge=new KM(F,Ye),nt=new Jx(F,Ye,e,ge),Ee=new YM(F,Ye),nt.reversedDepthBuffer&&f&&Ee.buffers.depth.setReversed(!0),k=F.createFramebuffer(),I=F.createFramebuffer(),V=F.createFramebuffer(),Pt=new fS(F),ke=new NM,qe=new $M(F,Ye,Ee,ke,nt,ge,Pt),C=new oS(N),y=new d0(F),Me=new Kx(F,y),X=new cS(F,y,Pt,Me),ue=new dS(F,X,y,Me,Pt),re=new hS(F,nt,qe),ne=new Qx(ke),ae=new DM(N,C,Ye,nt,Me,ne),_e=new ty(N,ke),xe=new UM,ee=new GM(Ye),U=new $x(N,C,Ee,ue,g,l),pe=new qM(N,ue,nt),He=new ny(F,Pt,nt,Ee),te=new Zx(F,Ye,Pt),Te=new uS(F,Ye,Pt),Pt.programs=ae.programs,N.capabilities=nt,N.extensions=Ye,N.properties=ke,N.renderLists=xe,N.shadowMap=pe,N.state=Ee,N.info=Pt}M!==ni&&(z=new mS(M,t.width,t.height,o,s,r));const le=new jM(N,F);this.xr=le,this.getContext=function(){return F},this.getContextAttributes=function(){return F.getContextAttributes()},this.forceContextLoss=function(){const T=Ye.get("WEBGL_lose_context");T&&T.loseContext()},this.forceContextRestore=function(){const T=Ye.get("WEBGL_lose_context");T&&T.restoreContext()},this.getPixelRatio=function(){return ye},this.setPixelRatio=function(T){T!==void 0&&(ye=T,this.setSize(ve,Ae,!1))},this.getSize=function(T){return T.set(ve,Ae)},this.setSize=function(T,O,J=!0){if(le.isPresenting){Je("WebGLRenderer: Can't change size while VR device is presenting.");return}ve=T,Ae=O,t.width=Math.floor(T*ye),t.height=Math.floor(O*ye),J===!0&&(t.style.width=T+"px",t.style.height=O+"px"),z!==null&&z.setSize(t.width,t.height),this.setViewport(0,0,T,O)},this.getDrawingBufferSize=function(T){return T.set(ve*ye,Ae*ye).floor()},this.setDrawingBufferSize=function(T,O,J){ve=T,Ae=O,ye=J,t.width=Math.floor(T*J),t.height=Math.floor(O*J),this.setViewport(0,0,T,O)},this.setEffects=function(T){if(M===ni){Mt("WebGLRenderer: setEffects() requires outputBufferType set to HalfFloatType or FloatType.");return}if(T){for(let O=0;O<T.length;O++)if(T[O].isOutputPass===!0){Je("WebGLRenderer: OutputPass is not needed in setEffects(). Tone mapping and color space conversion are applied automatically.");break}}z.setEffects(T||[])},this.getCurrentViewport=function(T){return T.copy(ie)},this.getViewport=function(T){return T.copy(Ge)},this.setViewport=function(T,O,J,q){T.isVector4?Ge.set(T.x,T.y,T.z,T.w):Ge.set(T,O,J,q),Ee.viewport(ie.copy(Ge).multiplyScalar(jt()).round())},this.getScissor=function(T){return T.copy(lt)},this.setScissor=function(T,O,J,q){T.isVector4?lt.set(T.x,T.y,T.z,T.w):lt.set(T,O,J,q),Ee.scissor(he.copy(lt).multiplyScalar(jt()).round())},this.getScissorTest=function(){return rt},this.setScissorTest=function(T){Ee.setScissorTest(rt=T)},this.setOpaqueSort=function(T){We=T},this.setTransparentSort=function(T){tt=T},this.getClearColor=function(T){return T.copy(U.getClearColor())},this.setClearColor=function(){U.setClearColor(...arguments)},this.getClearAlpha=function(){return U.getClearAlpha()},this.setClearAlpha=function(){U.setClearAlpha(...arguments)},this.clear=function(T=!0,O=!0,J=!0){let q=0;if(T){let Y=!1;if(ce!==null){const be=ce.texture.format;Y=p.has(be)}if(Y){const be=ce.texture.type,Pe=m.has(be),we=U.getClearColor(),Le=U.getClearAlpha(),ze=we.r,Qe=we.g,ct=we.b;Pe?(x[0]=ze,x[1]=Qe,x[2]=ct,x[3]=Le,F.clearBufferuiv(F.COLOR,0,x)):(A[0]=ze,A[1]=Qe,A[2]=ct,A[3]=Le,F.clearBufferiv(F.COLOR,0,A))}else q|=F.COLOR_BUFFER_BIT}O&&(q|=F.DEPTH_BUFFER_BIT,this.state.buffers.depth.setMask(!0)),J&&(q|=F.STENCIL_BUFFER_BIT,this.state.buffers.stencil.setMask(4294967295)),q!==0&&F.clear(q)},this.clearColor=function(){this.clear(!0,!1,!1)},this.clearDepth=function(){this.clear(!1,!0,!1)},this.clearStencil=function(){this.clear(!1,!1,!0)},this.setNodesHandler=function(T){T.setRenderer(this),G=T},this.dispose=function(){t.removeEventListener("webglcontextlost",Oe,!1),t.removeEventListener("webglcontextrestored",Ze,!1),t.removeEventListener("webglcontextcreationerror",Re,!1),U.dispose(),xe.dispose(),ee.dispose(),qe.dispose(),ke.dispose(),C.dispose(),ue.dispose(),X.dispose(),Me.dispose(),He.dispose(),ae.dispose(),le.dispose(),le.removeEventListener("sessionstart",ba),le.removeEventListener("sessionend",vi),Oi.stop()};function Oe(T){T.preventDefault(),Of("WebGLRenderer: Context Lost."),L=!0}function Ze(){Of("WebGLRenderer: Context Restored."),L=!1;const T=Pt.autoReset,O=pe.enabled,J=pe.autoUpdate,q=pe.needsUpdate,Y=pe.type;Ke(),Pt.autoReset=T,pe.enabled=O,pe.autoUpdate=J,pe.needsUpdate=q,pe.type=Y}function Re(T){Mt("WebGLRenderer: A WebGL context could not be created. Reason: ",T.statusMessage)}function st(T){const O=T.target;O.removeEventListener("dispose",st),Ut(O)}function Ut(T){Cn(T),ke.remove(T)}function Cn(T){const O=ke.get(T).programs;O!==void 0&&(O.forEach(function(J){ae.releaseProgram(J)}),T.isShaderMaterial&&ae.releaseShaderCache(T))}this.renderBufferDirect=function(T,O,J,q,Y,be){O===null&&(O=cn);const Pe=Y.isMesh&&Y.matrixWorld.determinantAffine()<0,we=kr(T,O,J,q,Y);Ee.setMaterial(q,Pe);let Le=J.index,ze=1;if(q.wireframe===!0){if(Le=X.getWireframeAttribute(J),Le===void 0)return;ze=2}const Qe=J.drawRange,ct=J.attributes.position;let Be=Qe.start*ze,ut=(Qe.start+Qe.count)*ze;be!==null&&(Be=Math.max(Be,be.start*ze),ut=Math.min(ut,(be.start+be.count)*ze)),Le!==null?(Be=Math.max(Be,0),ut=Math.min(ut,Le.count)):ct!=null&&(Be=Math.max(Be,0),ut=Math.min(ut,ct.count));const Ht=ut-Be;if(Ht<0||Ht===1/0)return;Me.setup(Y,q,we,J,Le);let Tt,bt=te;if(Le!==null&&(Tt=y.get(Le),bt=Te,bt.setIndex(Tt)),Y.isMesh)q.wireframe===!0?(Ee.setLineWidth(q.wireframeLinewidth*jt()),bt.setMode(F.LINES)):bt.setMode(F.TRIANGLES);else if(Y.isLine){let un=q.linewidth;un===void 0&&(un=1),Ee.setLineWidth(un*jt()),Y.isLineSegments?bt.setMode(F.LINES):Y.isLineLoop?bt.setMode(F.LINE_LOOP):bt.setMode(F.LINE_STRIP)}else Y.isPoints?bt.setMode(F.POINTS):Y.isSprite&&bt.setMode(F.TRIANGLES);if(Y.isBatchedMesh)if(Ye.get("WEBGL_multi_draw"))bt.renderMultiDraw(Y._multiDrawStarts,Y._multiDrawCounts,Y._multiDrawCount);else{const un=Y._multiDrawStarts,Ue=Y._multiDrawCounts,en=Y._multiDrawCount,dt=Le?y.get(Le).bytesPerElement:1,zi=ke.get(q).currentProgram.getUniforms();for(let tn=0;tn<en;tn++)zi.setValue(F,"_gl_DrawID",tn),bt.render(un[tn]/dt,Ue[tn])}else if(Y.isInstancedMesh)bt.renderInstances(Be,Ht,Y.count);else if(J.isInstancedBufferGeometry){const un=J._maxInstanceCount!==void 0?J._maxInstanceCount:1/0,Ue=Math.min(J.instanceCount,un);bt.renderInstances(Be,Ht,Ue)}else bt.render(Be,Ht)};function Or(T,O,J,q){G!==null&&T.isNodeMaterial&&G.setObject(q,T),It===!0&&ne.setState(T,J,!1),T.transparent===!0&&T.side===Pi&&T.forceSinglePass===!1?(T.side=Bn,T.needsUpdate=!0,xi(T,O,q),T.side=Us,T.needsUpdate=!0,xi(T,O,q),T.side=Pi):xi(T,O,q)}this.compile=function(T,O,J=null){J===null&&(J=T),G!==null&&G.renderStart(T,O,J),w=ee.get(J),w.init(O),b.push(w),J.traverseVisible(function(Y){Y.isLight&&Y.layers.test(O.layers)&&(w.pushLight(Y),Y.castShadow&&w.pushShadow(Y))}),T!==J&&T.traverseVisible(function(Y){Y.isLight&&Y.layers.test(O.layers)&&(w.pushLight(Y),Y.castShadow&&w.pushShadow(Y))}),w.setupLights(),G!==null&&G.updateLights(w.state.lightsArray),Qt=this.localClippingEnabled,It=ne.init(this.clippingPlanes,Qt),It===!0&&ne.setGlobalState(this.clippingPlanes,O),G!==null&&pe.render(w.state.shadowsArray,J,O);const q=new Set;return T.traverse(function(Y){if(!(Y.isMesh||Y.isPoints||Y.isLine||Y.isSprite))return;const be=Y.material;if(be)if(Array.isArray(be))for(let Pe=0;Pe<be.length;Pe++){const we=be[Pe];Or(we,J,O,Y),q.add(we)}else Or(be,J,O,Y),q.add(be)}),w=b.pop(),G!==null&&G.renderEnd(),q},this.compileAsync=function(T,O,J=null){const q=this.compile(T,O,J);return new Promise(Y=>{function be(){if(q.forEach(function(Pe){const Le=ke.get(Pe).currentProgram;(Le===void 0||Le.isReady())&&q.delete(Pe)}),q.size===0){Y(T);return}setTimeout(be,10)}Ye.get("KHR_parallel_shader_compile")!==null?be():setTimeout(be,10)})};let Vs=null;function sl(T){Vs&&Vs(T)}function ba(){Oi.stop()}function vi(){Oi.start()}const Oi=new Np;Oi.setAnimationLoop(sl),typeof self<"u"&&Oi.setContext(self),this.setAnimationLoop=function(T){Vs=T,le.setAnimationLoop(T),T===null?Oi.stop():Oi.start()},le.addEventListener("sessionstart",ba),le.addEventListener("sessionend",vi),this.render=function(T,O){if(O!==void 0&&O.isCamera!==!0){Mt("WebGLRenderer.render: camera is not an instance of THREE.Camera.");return}if(L===!0)return;G!==null&&G.renderStart(T,O);const J=le.enabled===!0&&le.isPresenting===!0,q=z!==null&&(ce===null||J)&&z.begin(N,ce);if(T.matrixWorldAutoUpdate===!0&&T.updateMatrixWorld(),O.parent===null&&O.matrixWorldAutoUpdate===!0&&O.updateMatrixWorld(),le.enabled===!0&&le.isPresenting===!0&&(z===null||z.isCompositing()===!1)&&(le.cameraAutoUpdate===!0&&le.updateCamera(O),O=le.getCamera()),T.isScene===!0&&T.onBeforeRender(N,T,O,ce),w=ee.get(T,b.length),w.init(O),w.state.textureUnits=qe.getTextureUnits(),b.push(w),Rt.multiplyMatrices(O.projectionMatrix,O.matrixWorldInverse),O.isArrayCamera?kt.setFromArrayCamera(O):je.setFromProjectionMatrix(Rt,gi,O.reversedDepth),Qt=this.localClippingEnabled,It=ne.init(this.clippingPlanes,Qt),R=xe.get(T,_.length),R.init(),_.push(R),this.info.render.frame++,le.enabled===!0&&le.isPresenting===!0){const Pe=N.xr.getDepthSensingMesh();Pe!==null&&Bi(Pe,O,-1/0,N.sortObjects)}Bi(T,O,0,N.sortObjects),R.finish(),G!==null&&G.updateLights(w.state.lightsArray),N.sortObjects===!0&&R.sort(We,tt),Xt=le.enabled===!1||le.isPresenting===!1||le.hasDepthSensing()===!1,Xt&&U.addToRenderList(R,T),this.info.autoReset===!0&&this.info.reset(),It===!0&&ne.beginShadows();const Y=w.state.shadowsArray;if(pe.render(Y,T,O),It===!0&&ne.endShadows(),(q&&z.hasRenderPass())===!1){const Pe=R.opaque,we=R.transmissive;if(w.setupLights(),O.isArrayCamera){const Le=O.cameras;if(we.length>0)for(let ze=0,Qe=Le.length;ze<Qe;ze++){const ct=Le[ze];ri(Pe,we,T,ct)}Xt&&U.render(T);for(let ze=0,Qe=Le.length;ze<Qe;ze++){const ct=Le[ze];Br(R,T,ct,ct.viewport)}}else we.length>0&&ri(Pe,we,T,O),Xt&&U.render(T),Br(R,T,O)}ce!==null&&B===0&&(qe.updateMultisampleRenderTarget(ce),qe.updateRenderTargetMipmap(ce)),q&&z.end(N),T.isScene===!0&&T.onAfterRender(N,T,O),Me.resetDefaultState(),K=-1,Q=null,b.pop(),b.length>0?(w=b[b.length-1],qe.setTextureUnits(w.state.textureUnits),It===!0&&ne.setGlobalState(N.clippingPlanes,w.state.camera)):w=null,_.pop(),_.length>0?R=_[_.length-1]:R=null,G!==null&&G.renderEnd()};function Bi(T,O,J,q){if(T.visible===!1)return;if(T.layers.test(O.layers)){if(T.isGroup)J=T.renderOrder;else if(T.isLOD)T.autoUpdate===!0&&T.update(O);else if(T.isLight)w.pushLight(T),T.castShadow&&w.pushShadow(T);else if(T.isSprite){const Pe=O.isArrayCamera?kt:je;if(!T.frustumCulled||T.intersectsFrustum(Pe)){q&&gt.setFromMatrixPosition(T.matrixWorld).applyMatrix4(Rt);const we=ue.update(T),Le=T.material;Le.visible&&R.push(T,we,Le,J,gt.z,null,O)}}else if(T.isMesh||T.isLine||T.isPoints){const Pe=O.isArrayCamera?kt:je;if(!T.frustumCulled||T.intersectsFrustum(Pe)){const we=ue.update(T),Le=T.material;if(q&&(T.boundingSphere!==void 0?(T.boundingSphere===null&&T.computeBoundingSphere(),gt.copy(T.boundingSphere.center)):(we.boundingSphere===null&&we.computeBoundingSphere(),gt.copy(we.boundingSphere.center)),gt.applyMatrix4(T.matrixWorld).applyMatrix4(Rt)),Array.isArray(Le)){const ze=we.groups;for(let Qe=0,ct=ze.length;Qe<ct;Qe++){const Be=ze[Qe],ut=Le[Be.materialIndex];ut&&ut.visible&&R.push(T,we,ut,J,gt.z,Be,O)}}else Le.visible&&R.push(T,we,Le,J,gt.z,null,O)}}}const be=T.children;for(let Pe=0,we=be.length;Pe<we;Pe++)Bi(be[Pe],O,J,q)}function Br(T,O,J,q){const{opaque:Y,transmissive:be,transparent:Pe}=T;w.setupLightsView(J),It===!0&&ne.setGlobalState(N.clippingPlanes,J),q&&Ee.viewport(ie.copy(q)),Y.length>0&&qt(Y,O,J),be.length>0&&qt(be,O,J),Pe.length>0&&qt(Pe,O,J),Ee.buffers.depth.setTest(!0),Ee.buffers.depth.setMask(!0),Ee.buffers.color.setMask(!0),Ee.setPolygonOffset(!1)}function ri(T,O,J,q){if((J.isScene===!0?J.overrideMaterial:null)!==null)return;if(w.state.transmissionRenderTarget[q.id]===void 0){const Be=Ye.has("EXT_color_buffer_half_float")||Ye.has("EXT_color_buffer_float");w.state.transmissionRenderTarget[q.id]=new ii(1,1,{generateMipmaps:!0,type:Be?_i:ni,minFilter:ms,samples:Math.max(4,nt.samples),stencilBuffer:r,resolveDepthBuffer:!1,resolveStencilBuffer:!1,storeMultisampledDepthBuffer:!1,storeMultisampledStencilBuffer:!1,colorSpace:mt.workingColorSpace})}const be=w.state.transmissionRenderTarget[q.id],Pe=q.viewport||ie;be.setSize(Pe.z*N.transmissionResolutionScale,Pe.w*N.transmissionResolutionScale);const we=N.getRenderTarget(),Le=N.getActiveCubeFace(),ze=N.getActiveMipmapLevel();N.setRenderTarget(be),N.getClearColor(j),me=N.getClearAlpha(),me<1&&N.setClearColor(16777215,.5),N.clear(),Xt&&U.render(J);const Qe=N.toneMapping;N.toneMapping=Zi;const ct=q.viewport;if(q.viewport!==void 0&&(q.viewport=void 0),w.setupLightsView(q),It===!0&&ne.setGlobalState(N.clippingPlanes,q),qt(T,J,q),qe.updateMultisampleRenderTarget(be),qe.updateRenderTargetMipmap(be),Ye.has("WEBGL_multisampled_render_to_texture")===!1){let Be=!1;for(let ut=0,Ht=O.length;ut<Ht;ut++){const Tt=O[ut],{object:bt,geometry:un,material:Ue,group:en}=Tt;if(Ue.side===Pi&&bt.layers.test(q.layers)){const dt=Ue.side;Ue.side=Bn,Ue.needsUpdate=!0,Zt(bt,J,q,un,Ue,en),Ue.side=dt,Ue.needsUpdate=!0,Be=!0}}Be===!0&&(qe.updateMultisampleRenderTarget(be),qe.updateRenderTargetMipmap(be))}N.setRenderTarget(we,Le,ze),N.setClearColor(j,me),ct!==void 0&&(q.viewport=ct),N.toneMapping=Qe}function qt(T,O,J){const q=O.isScene===!0?O.overrideMaterial:null;for(let Y=0,be=T.length;Y<be;Y++){const Pe=T[Y],{object:we,geometry:Le,group:ze}=Pe;let Qe=Pe.material;Qe.allowOverride===!0&&q!==null&&(Qe=q),we.layers.test(J.layers)&&Zt(we,O,J,Le,Qe,ze)}}function Zt(T,O,J,q,Y,be){G!==null&&Y.isNodeMaterial&&G.setObject(T,Y),T.onBeforeRender(N,O,J,q,Y,be),T.modelViewMatrix.multiplyMatrices(J.matrixWorldInverse,T.matrixWorld),T.normalMatrix.getNormalMatrix(T.modelViewMatrix),Y.onBeforeRender(N,O,J,q,T,be),Y.transparent===!0&&Y.side===Pi&&Y.forceSinglePass===!1?(Y.side=Bn,Y.needsUpdate=!0,N.renderBufferDirect(J,O,q,Y,T,be),Y.side=Us,Y.needsUpdate=!0,N.renderBufferDirect(J,O,q,Y,T,be),Y.side=Pi):N.renderBufferDirect(J,O,q,Y,T,be),T.onAfterRender(N,O,J,q,Y,be)}function Jt(T){let O=0;for(const J of T)J.texture!==null&&O++;return O}function xi(T,O,J){O.isScene!==!0&&(O=cn);const q=ke.get(T),Y=w.state.lights,be=w.state.shadowsArray,Pe=Y.state.version,we=ae.getParameters(T,Y.state,be,O,J,w.state.lightProbeGridArray),Le=ae.getProgramCacheKey(we);let ze=q.programs;q.environment=T.isMeshStandardMaterial||T.isMeshLambertMaterial||T.isMeshPhongMaterial?O.environment:null,q.fog=O.fog;const Qe=T.isMeshStandardMaterial||T.isMeshLambertMaterial&&!T.envMap||T.isMeshPhongMaterial&&!T.envMap;q.envMap=C.get(T.envMap||q.environment,Qe),q.envMapRotation=q.environment!==null&&T.envMap===null?O.environmentRotation:T.envMapRotation,ze===void 0&&(T.addEventListener("dispose",st),ze=new Map,q.programs=ze,q.programVariants=new Map);let ct=ze.get(Le);if(ct!==void 0){if(q.currentProgram===ct&&q.lightsStateVersion===Pe)return zr(T,we),ct}else we.uniforms=ae.getUniforms(T),G!==null&&T.isNodeMaterial&&G.build(T,J,we),T.onBeforeCompile(we,N),ct=ae.acquireProgram(we,Le),ze.set(Le,ct),q.uniforms=we.uniforms;const Be=q.uniforms;return(!T.isShaderMaterial&&!T.isRawShaderMaterial||T.clipping===!0)&&(Be.clippingPlanes=ne.uniform),zr(T,we),q.needsLights=ts(T),q.lightsStateVersion=Pe,q.needsLights&&(Be.ambientLightColor.value=Y.state.ambient,Be.lightProbe.value=Y.state.probe,Be.sunLights.value=Y.state.sun,Be.sunLightShadows.value=Y.state.sunShadow,Be.directionalLights.value=Y.state.directional,Be.directionalLightShadows.value=Y.state.directionalShadow,Be.spotLights.value=Y.state.spot,Be.spotLightShadows.value=Y.state.spotShadow,Be.rectAreaLights.value=Y.state.rectArea,Be.ltc_1.value=Y.state.rectAreaLTC1,Be.ltc_2.value=Y.state.rectAreaLTC2,Be.pointLights.value=Y.state.point,Be.pointLightShadows.value=Y.state.pointShadow,Be.hemisphereLights.value=Y.state.hemi,Be.sunShadowMatrix.value=Y.state.sunShadowMatrix,Be.sunShadowCascade.value=Y.state.sunShadowCascade,Be.directionalShadowMatrix.value=Y.state.directionalShadowMatrix,Be.spotLightMatrix.value=Y.state.spotLightMatrix,Be.spotLightMap.value=Y.state.spotLightMap,Be.pointShadowMatrix.value=Y.state.pointShadowMatrix),q.numLightProbeGrids=Jt(w.state.lightProbeGridArray),q.currentProgram=ct,q.uniformsList=null,ct}function kn(T,O,J,q,Y){const be=ke.get(T),Pe=be.currentProgram.id+","+q+","+Y;let we=be.programVariants.get(Pe);return we===void 0?(we=xi(T,O,J),be.programVariants.set(Pe,we)):(be.currentProgram=we,be.uniformsList=null,be.outputColorSpace=q,be.toneMapping=Y),we}function es(T){if(T.uniformsList===null){const O=T.currentProgram.getUniforms();T.uniformsList=yo.seqWithValue(O.seq,T.uniforms)}return T.uniformsList}function zr(T,O){const J=ke.get(T);J.outputColorSpace=O.outputColorSpace,J.batching=O.batching,J.batchingColor=O.batchingColor,J.instancing=O.instancing,J.instancingColor=O.instancingColor,J.instancingMorph=O.instancingMorph,J.skinning=O.skinning,J.morphTargets=O.morphTargets,J.morphNormals=O.morphNormals,J.morphColors=O.morphColors,J.morphTargetsCount=O.morphTargetsCount,J.numClippingPlanes=O.numClippingPlanes,J.numIntersection=O.numClipIntersection,J.vertexAlphas=O.vertexAlphas,J.vertexTangents=O.vertexTangents,J.toneMapping=O.toneMapping}function kr(T,O,J,q,Y){O.isScene!==!0&&(O=cn),qe.resetTextureUnits();const be=O.fog,Pe=q.isMeshStandardMaterial||q.isMeshLambertMaterial||q.isMeshPhongMaterial?O.environment:null,we=ce===null?N.outputColorSpace:ce.isXRRenderTarget===!0?ce.texture.colorSpace:mt.workingColorSpace,Le=q.isMeshStandardMaterial||q.isMeshLambertMaterial&&!q.envMap||q.isMeshPhongMaterial&&!q.envMap,ze=C.get(q.envMap||Pe,Le),Qe=q.vertexColors===!0&&!!J.attributes.color&&J.attributes.color.itemSize===4,ct=!!J.attributes.tangent&&(!!q.normalMap||q.anisotropy>0),Be=!!J.morphAttributes.position,ut=!!J.morphAttributes.normal,Ht=!!J.morphAttributes.color;let Tt=Zi;q.toneMapped&&(ce===null||ce.isXRRenderTarget===!0)&&(Tt=N.toneMapping);const bt=J.morphAttributes.position||J.morphAttributes.normal||J.morphAttributes.color,un=bt!==void 0?bt.length:0,Ue=ke.get(q),en=w.state.lights;if(It===!0&&(Qt===!0||T!==Q)){const wt=T===Q&&q.id===K;ne.setState(q,T,wt)}let dt=!1,zi=!1;q.version===Ue.__version?Ue.needsLights&&Ue.lightsStateVersion!==en.state.version||Y.isBatchedMesh&&Ue.batching===!1||!Y.isBatchedMesh&&Ue.batching===!0||Y.isBatchedMesh&&Ue.batchingColor===!0&&Y._colorsTexture===null||Y.isBatchedMesh&&Ue.batchingColor===!1&&Y._colorsTexture!==null||Y.isInstancedMesh&&Ue.instancing===!1||!Y.isInstancedMesh&&Ue.instancing===!0||Y.isSkinnedMesh&&Ue.skinning===!1||!Y.isSkinnedMesh&&Ue.skinning===!0||Y.isInstancedMesh&&Ue.instancingColor===!0&&Y.instanceColor===null||Y.isInstancedMesh&&Ue.instancingColor===!1&&Y.instanceColor!==null||Y.isInstancedMesh&&Ue.instancingMorph===!0&&Y.morphTexture===null||Y.isInstancedMesh&&Ue.instancingMorph===!1&&Y.morphTexture!==null||Ue.envMap!==ze||q.fog===!0&&Ue.fog!==be||Ue.numClippingPlanes!==void 0&&(Ue.numClippingPlanes!==ne.numPlanes||Ue.numIntersection!==ne.numIntersection)||Ue.vertexAlphas!==Qe||Ue.vertexTangents!==ct||Ue.morphTargets!==Be||Ue.morphNormals!==ut||Ue.morphColors!==Ht||Ue.morphTargetsCount!==un||Ue.numLightProbeGrids!==Jt(w.state.lightProbeGridArray)?dt=!0:(Ue.outputColorSpace!==we||Ue.toneMapping!==Tt)&&(zi=!0):(dt=!0,Ue.__version=q.version);let tn=Ue.currentProgram;(dt===!0||zi===!0)&&(tn=zi===!0?kn(q,O,Y,we,Tt):xi(q,O,Y),G&&q.isNodeMaterial&&G.onUpdateProgram(q,tn,Ue));let qs=!1,Si=!1,ki=!1;const at=tn.getUniforms(),Yt=Ue.uniforms;if(Ee.useProgram(tn.program)&&(qs=!0,Si=!0,ki=!0),q.id!==K&&(K=q.id,Si=!0),qs||Q!==T){Ee.buffers.depth.getReversed()&&T.reversedDepth!==!0&&(T._reversedDepth=!0,T.updateProjectionMatrix()),at.setValue(F,"projectionMatrix",T.projectionMatrix),at.setValue(F,"viewMatrix",T.matrixWorldInverse);const nn=at.map.cameraPosition;nn!==void 0&&nn.setValue(F,vn.setFromMatrixPosition(T.matrixWorld)),nt.logarithmicDepthBuffer&&at.setValue(F,"logDepthBufFC",2/(Math.log(T.far+1)/Math.LN2)),(q.isMeshPhongMaterial||q.isMeshToonMaterial||q.isMeshLambertMaterial||q.isMeshBasicMaterial||q.isMeshStandardMaterial||q.isShaderMaterial)&&at.setValue(F,"isOrthographic",T.isOrthographicCamera===!0),Q!==T&&(Q=T,Si=!0,ki=!0)}if(Ue.needsLights&&(en.state.sunShadowMap.length>0&&at.setValue(F,"sunShadowMap",en.state.sunShadowMap,qe),en.state.directionalShadowMap.length>0&&at.setValue(F,"directionalShadowMap",en.state.directionalShadowMap,qe),en.state.spotShadowMap.length>0&&at.setValue(F,"spotShadowMap",en.state.spotShadowMap,qe),en.state.pointShadowMap.length>0&&at.setValue(F,"pointShadowMap",en.state.pointShadowMap,qe)),Y.isSkinnedMesh){at.setOptional(F,Y,"bindMatrix"),at.setOptional(F,Y,"bindMatrixInverse");const wt=Y.skeleton;wt&&(wt.boneTexture===null&&wt.computeBoneTexture(),at.setValue(F,"boneTexture",wt.boneTexture,qe))}Y.isBatchedMesh&&(at.setOptional(F,Y,"batchingTexture"),at.setValue(F,"batchingTexture",Y._matricesTexture,qe),at.setOptional(F,Y,"batchingIdTexture"),at.setValue(F,"batchingIdTexture",Y._indirectTexture,qe),at.setOptional(F,Y,"batchingColorTexture"),Y._colorsTexture!==null&&at.setValue(F,"batchingColorTexture",Y._colorsTexture,qe));const Pn=J.morphAttributes;if((Pn.position!==void 0||Pn.normal!==void 0||Pn.color!==void 0)&&re.update(Y,J,tn),(Si||Ue.receiveShadow!==Y.receiveShadow)&&(Ue.receiveShadow=Y.receiveShadow,at.setValue(F,"receiveShadow",Y.receiveShadow)),(q.isMeshStandardMaterial||q.isMeshLambertMaterial||q.isMeshPhongMaterial)&&q.envMap===null&&O.environment!==null&&(Yt.envMapIntensity.value=O.environmentIntensity),Yt.dfgLUT!==void 0&&(Yt.dfgLUT.value=sy()),Si){if(at.setValue(F,"toneMappingExposure",N.toneMappingExposure),Ue.needsLights&&Ws(Yt,ki),be&&q.fog===!0&&_e.refreshFogUniforms(Yt,be),_e.refreshMaterialUniforms(Yt,q,ye,Ae,w.state.transmissionRenderTarget[T.id]),Ue.needsLights&&Ue.numLightProbeGrids>0){const wt=S;let nn=0;for(const bn of w.state.lightProbeGridArray)bn.texture!==null&&(wt.textures[nn]=bn.texture,wt.min[nn]=bn.boundingBox.min,wt.max[nn]=bn.boundingBox.max,wt.resolution[nn]=bn.resolution,nn++);for(const bn in wt)wt[bn].length=nn;Yt.probesSH.value=wt.textures,Yt.probesMin.value=wt.min,Yt.probesMax.value=wt.max,Yt.probesResolution.value=wt.resolution}yo.upload(F,es(Ue),Yt,qe)}if(q.isShaderMaterial&&q.uniformsNeedUpdate===!0&&(yo.upload(F,es(Ue),Yt,qe),q.uniformsNeedUpdate=!1),q.isSpriteMaterial&&at.setValue(F,"center",Y.center),at.setValue(F,"modelViewMatrix",Y.modelViewMatrix),at.setValue(F,"normalMatrix",Y.normalMatrix),at.setValue(F,"modelMatrix",Y.matrixWorld),q.uniformsGroups!==void 0){const wt=q.uniformsGroups;for(let nn=0,bn=wt.length;nn<bn;nn++){const wa=wt[nn];He.update(wa,tn),He.bind(wa,tn)}}return tn}function Ws(T,O){T.ambientLightColor.needsUpdate=O,T.lightProbe.needsUpdate=O,T.sunLights.needsUpdate=O,T.sunLightShadows.needsUpdate=O,T.directionalLights.needsUpdate=O,T.directionalLightShadows.needsUpdate=O,T.pointLights.needsUpdate=O,T.pointLightShadows.needsUpdate=O,T.spotLights.needsUpdate=O,T.spotLightShadows.needsUpdate=O,T.rectAreaLights.needsUpdate=O,T.hemisphereLights.needsUpdate=O}function ts(T){return T.isMeshLambertMaterial||T.isMeshToonMaterial||T.isMeshPhongMaterial||T.isMeshStandardMaterial||T.isShadowMaterial||T.isShaderMaterial&&T.lights===!0}this.getActiveCubeFace=function(){return Z},this.getActiveMipmapLevel=function(){return B},this.getRenderTarget=function(){return ce},this.setRenderTargetTextures=function(T,O,J){const q=ke.get(T);q.__autoAllocateDepthBuffer=T.resolveDepthBuffer===!1,q.__autoAllocateDepthBuffer===!1&&(q.__useRenderToTexture=!1),ke.get(T.texture).__webglTexture=O,ke.get(T.depthTexture).__webglTexture=q.__autoAllocateDepthBuffer?void 0:J,q.__hasExternalTextures=!0},this.setRenderTargetFramebuffer=function(T,O){const J=ke.get(T);J.__webglFramebuffer=O,J.__useDefaultFramebuffer=O===void 0},this.setRenderTarget=function(T,O=0,J=0){ce=T,Z=O,B=J;let q=null,Y=!1,be=!1;if(T){const we=ke.get(T);if(we.__useDefaultFramebuffer!==void 0){Ee.bindFramebuffer(F.FRAMEBUFFER,we.__webglFramebuffer),ie.copy(T.viewport),he.copy(T.scissor),fe=T.scissorTest,Ee.viewport(ie),Ee.scissor(he),Ee.setScissorTest(fe),K=-1;return}else if(we.__webglFramebuffer===void 0)qe.setupRenderTarget(T);else if(we.__hasExternalTextures)qe.rebindTextures(T,ke.get(T.texture).__webglTexture,ke.get(T.depthTexture).__webglTexture);else if(T.depthBuffer){const Qe=T.depthTexture;if(we.__boundDepthTexture!==Qe){if(Qe!==null&&ke.has(Qe)&&(T.width!==Qe.image.width||T.height!==Qe.image.height))throw new Error("THREE.WebGLRenderer: Attached DepthTexture is initialized to the incorrect size.");qe.setupDepthRenderbuffer(T)}}const Le=T.texture;(Le.isData3DTexture||Le.isDataArrayTexture||Le.isCompressedArrayTexture)&&(be=!0);const ze=ke.get(T).__webglFramebuffer;T.isWebGLCubeRenderTarget?(Array.isArray(ze[O])?q=ze[O][J]:q=ze[O],Y=!0):T.samples>0&&qe.useMultisampledRTT(T)===!1?q=ke.get(T).__webglMultisampledFramebuffer:Array.isArray(ze)?q=ze[J]:q=ze,ie.copy(T.viewport),he.copy(T.scissor),fe=T.scissorTest}else ie.copy(Ge).multiplyScalar(ye).floor(),he.copy(lt).multiplyScalar(ye).floor(),fe=rt;if(J!==0&&(q=k),Ee.bindFramebuffer(F.FRAMEBUFFER,q)&&Ee.drawBuffers(T,q),Ee.viewport(ie),Ee.scissor(he),Ee.setScissorTest(fe),Y){const we=ke.get(T.texture);F.framebufferTexture2D(F.FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_CUBE_MAP_POSITIVE_X+O,we.__webglTexture,J)}else if(be){const we=O;for(let Le=0;Le<T.textures.length;Le++){const ze=ke.get(T.textures[Le]);F.framebufferTextureLayer(F.FRAMEBUFFER,F.COLOR_ATTACHMENT0+Le,ze.__webglTexture,J,we)}}else if(T!==null&&J!==0){const we=ke.get(T.texture);F.framebufferTexture2D(F.FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_2D,we.__webglTexture,J)}K=-1};function Xs(T){const O=ke.get(T);return(O.__readFormat!==T.format||O.__readType!==T.type)&&(O.__readFormat=T.format,O.__readType=T.type,O.__formatReadable=nt.textureFormatReadable(T.format),O.__typeReadable=nt.textureTypeReadable(T.type)),O}this.readRenderTargetPixels=function(T,O,J,q,Y,be,Pe,we=0){if(!(T&&T.isWebGLRenderTarget)){Mt("WebGLRenderer.readRenderTargetPixels: renderTarget is not THREE.WebGLRenderTarget.");return}let Le=ke.get(T).__webglFramebuffer;if(T.isWebGLCubeRenderTarget&&Pe!==void 0&&(Le=Le[Pe],Array.isArray(Le)&&(Le=Le[0])),Le){Ee.bindFramebuffer(F.FRAMEBUFFER,Le);try{const ze=T.textures[we],Qe=ze.format,ct=ze.type;T.textures.length>1&&F.readBuffer(F.COLOR_ATTACHMENT0+we);const Be=Xs(ze);if(Be.__formatReadable===!1){Mt("WebGLRenderer.readRenderTargetPixels: renderTarget is not in RGBA or implementation defined format.");return}if(Be.__typeReadable===!1){Mt("WebGLRenderer.readRenderTargetPixels: renderTarget is not in UnsignedByteType or implementation defined type.");return}O>=0&&O<=T.width-q&&J>=0&&J<=T.height-Y&&F.readPixels(O,J,q,Y,ge.convert(Qe),ge.convert(ct),be)}finally{const ze=ce!==null?ke.get(ce).__webglFramebuffer:null;Ee.bindFramebuffer(F.FRAMEBUFFER,ze)}}},this.readRenderTargetPixelsAsync=async function(T,O,J,q,Y,be,Pe,we=0){if(!(T&&T.isWebGLRenderTarget))throw new Error("THREE.WebGLRenderer.readRenderTargetPixels: renderTarget is not THREE.WebGLRenderTarget.");let Le=ke.get(T).__webglFramebuffer;if(T.isWebGLCubeRenderTarget&&Pe!==void 0&&(Le=Le[Pe],Array.isArray(Le)&&(Le=Le[0])),Le)if(O>=0&&O<=T.width-q&&J>=0&&J<=T.height-Y){Ee.bindFramebuffer(F.FRAMEBUFFER,Le);const ze=T.textures[we],Qe=ze.format,ct=ze.type;T.textures.length>1&&F.readBuffer(F.COLOR_ATTACHMENT0+we);const Be=Xs(ze);if(Be.__formatReadable===!1)throw new Error("THREE.WebGLRenderer.readRenderTargetPixelsAsync: renderTarget is not in RGBA or implementation defined format.");if(Be.__typeReadable===!1)throw new Error("THREE.WebGLRenderer.readRenderTargetPixelsAsync: renderTarget is not in UnsignedByteType or implementation defined type.");const ut=F.createBuffer();F.bindBuffer(F.PIXEL_PACK_BUFFER,ut),F.bufferData(F.PIXEL_PACK_BUFFER,be.byteLength,F.STREAM_READ),F.readPixels(O,J,q,Y,ge.convert(Qe),ge.convert(ct),0),F.bindBuffer(F.PIXEL_PACK_BUFFER,null);const Ht=ce!==null?ke.get(ce).__webglFramebuffer:null;Ee.bindFramebuffer(F.FRAMEBUFFER,Ht);const Tt=F.fenceSync(F.SYNC_GPU_COMMANDS_COMPLETE,0);return F.flush(),await Zg(F,Tt,4),F.bindBuffer(F.PIXEL_PACK_BUFFER,ut),F.getBufferSubData(F.PIXEL_PACK_BUFFER,0,be),F.bindBuffer(F.PIXEL_PACK_BUFFER,null),F.deleteBuffer(ut),F.deleteSync(Tt),be}else throw new Error("THREE.WebGLRenderer.readRenderTargetPixelsAsync: requested read bounds are out of range.")},this.copyFramebufferToTexture=function(T,O=null,J=0){const q=Math.pow(2,-J),Y=Math.floor(T.image.width*q),be=Math.floor(T.image.height*q),Pe=O!==null?O.x:0,we=O!==null?O.y:0;qe.setTexture2D(T,0),F.copyTexSubImage2D(F.TEXTURE_2D,J,0,0,Pe,we,Y,be),Ee.unbindTexture()},this.copyTextureToTexture=function(T,O,J=null,q=null,Y=0,be=0){let Pe,we,Le,ze,Qe,ct,Be,ut,Ht;const Tt=T.isCompressedTexture?T.mipmaps[be]:T.image;if(J!==null)Pe=J.max.x-J.min.x,we=J.max.y-J.min.y,Le=J.isBox3?J.max.z-J.min.z:1,ze=J.min.x,Qe=J.min.y,ct=J.isBox3?J.min.z:0;else{const at=Math.pow(2,-Y);Pe=Math.floor(Tt.width*at),we=Math.floor(Tt.height*at),T.isDataArrayTexture?Le=Tt.depth:T.isData3DTexture?Le=Math.floor(Tt.depth*at):Le=1,ze=0,Qe=0,ct=0}q!==null?(Be=q.x,ut=q.y,Ht=q.z):(Be=0,ut=0,Ht=0);const bt=ge.convert(O.format),un=ge.convert(O.type);let Ue;O.isData3DTexture?(qe.setTexture3D(O,0),Ue=F.TEXTURE_3D):O.isDataArrayTexture||O.isCompressedArrayTexture?(qe.setTexture2DArray(O,0),Ue=F.TEXTURE_2D_ARRAY):(qe.setTexture2D(O,0),Ue=F.TEXTURE_2D),Ee.activeTexture(F.TEXTURE0),Ee.pixelStorei(F.UNPACK_FLIP_Y_WEBGL,O.flipY),Ee.pixelStorei(F.UNPACK_PREMULTIPLY_ALPHA_WEBGL,O.premultiplyAlpha),Ee.pixelStorei(F.UNPACK_ALIGNMENT,O.unpackAlignment);const en=Ee.getParameter(F.UNPACK_ROW_LENGTH),dt=Ee.getParameter(F.UNPACK_IMAGE_HEIGHT),zi=Ee.getParameter(F.UNPACK_SKIP_PIXELS),tn=Ee.getParameter(F.UNPACK_SKIP_ROWS),qs=Ee.getParameter(F.UNPACK_SKIP_IMAGES);Ee.pixelStorei(F.UNPACK_ROW_LENGTH,Tt.width),Ee.pixelStorei(F.UNPACK_IMAGE_HEIGHT,Tt.height),Ee.pixelStorei(F.UNPACK_SKIP_PIXELS,ze),Ee.pixelStorei(F.UNPACK_SKIP_ROWS,Qe),Ee.pixelStorei(F.UNPACK_SKIP_IMAGES,ct);const Si=T.isDataArrayTexture||T.isData3DTexture,ki=O.isDataArrayTexture||O.isData3DTexture;if(T.isDepthTexture){const at=ke.get(T),Yt=ke.get(O),Pn=ke.get(at.__renderTarget),wt=ke.get(Yt.__renderTarget);Ee.bindFramebuffer(F.READ_FRAMEBUFFER,Pn.__webglFramebuffer),Ee.bindFramebuffer(F.DRAW_FRAMEBUFFER,wt.__webglFramebuffer);for(let nn=0;nn<Le;nn++)Si&&(F.framebufferTextureLayer(F.READ_FRAMEBUFFER,F.COLOR_ATTACHMENT0,ke.get(T).__webglTexture,Y,ct+nn),F.framebufferTextureLayer(F.DRAW_FRAMEBUFFER,F.COLOR_ATTACHMENT0,ke.get(O).__webglTexture,be,Ht+nn)),F.blitFramebuffer(ze,Qe,ze+Pe,Qe+we,Be,ut,Be+Pe,ut+we,F.DEPTH_BUFFER_BIT,F.NEAREST);Ee.bindFramebuffer(F.READ_FRAMEBUFFER,null),Ee.bindFramebuffer(F.DRAW_FRAMEBUFFER,null)}else if(Y!==0||T.isRenderTargetTexture||ke.has(T)){const at=ke.get(T),Yt=ke.get(O);Ee.bindFramebuffer(F.READ_FRAMEBUFFER,I),Ee.bindFramebuffer(F.DRAW_FRAMEBUFFER,V);for(let Pn=0;Pn<Le;Pn++)Si?F.framebufferTextureLayer(F.READ_FRAMEBUFFER,F.COLOR_ATTACHMENT0,at.__webglTexture,Y,ct+Pn):F.framebufferTexture2D(F.READ_FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_2D,at.__webglTexture,Y),ki?F.framebufferTextureLayer(F.DRAW_FRAMEBUFFER,F.COLOR_ATTACHMENT0,Yt.__webglTexture,be,Ht+Pn):F.framebufferTexture2D(F.DRAW_FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_2D,Yt.__webglTexture,be),Y!==0?F.blitFramebuffer(ze,Qe,ze+Pe,Qe+we,Be,ut,Be+Pe,ut+we,F.COLOR_BUFFER_BIT,F.NEAREST):ki?F.copyTexSubImage3D(Ue,be,Be,ut,Ht+Pn,ze,Qe,Pe,we):F.copyTexSubImage2D(Ue,be,Be,ut,ze,Qe,Pe,we);Ee.bindFramebuffer(F.READ_FRAMEBUFFER,null),Ee.bindFramebuffer(F.DRAW_FRAMEBUFFER,null)}else ki?T.isDataTexture||T.isData3DTexture?F.texSubImage3D(Ue,be,Be,ut,Ht,Pe,we,Le,bt,un,Tt.data):O.isCompressedArrayTexture?F.compressedTexSubImage3D(Ue,be,Be,ut,Ht,Pe,we,Le,bt,Tt.data):F.texSubImage3D(Ue,be,Be,ut,Ht,Pe,we,Le,bt,un,Tt):T.isDataTexture?F.texSubImage2D(F.TEXTURE_2D,be,Be,ut,Pe,we,bt,un,Tt.data):T.isCompressedTexture?F.compressedTexSubImage2D(F.TEXTURE_2D,be,Be,ut,Tt.width,Tt.height,bt,Tt.data):F.texSubImage2D(F.TEXTURE_2D,be,Be,ut,Pe,we,bt,un,Tt);Ee.pixelStorei(F.UNPACK_ROW_LENGTH,en),Ee.pixelStorei(F.UNPACK_IMAGE_HEIGHT,dt),Ee.pixelStorei(F.UNPACK_SKIP_PIXELS,zi),Ee.pixelStorei(F.UNPACK_SKIP_ROWS,tn),Ee.pixelStorei(F.UNPACK_SKIP_IMAGES,qs),be===0&&O.generateMipmaps===!0&&O.mipmapsAutoUpdate===!0&&F.generateMipmap(Ue),Ee.unbindTexture()},this.initRenderTarget=function(T){ke.get(T).__webglFramebuffer===void 0&&qe.setupRenderTarget(T)},this.initTexture=function(T){T.isCubeTexture?qe.setTextureCube(T,0):T.isData3DTexture?qe.setTexture3D(T,0):T.isDataArrayTexture||T.isCompressedArrayTexture?qe.setTexture2DArray(T,0):qe.setTexture2D(T,0),Ee.unbindTexture()},this.resetState=function(){Z=0,B=0,ce=null,Ee.reset(),Me.reset()},typeof __THREE_DEVTOOLS__<"u"&&__THREE_DEVTOOLS__.dispatchEvent(new CustomEvent("observe",{detail:this}))}get coordinateSystem(){return gi}get outputColorSpace(){return this._outputColorSpace}set outputColorSpace(e){this._outputColorSpace=e;const t=this.getContext();t.drawingBufferColorSpace=mt._getDrawingBufferColorSpace(e),t.unpackColorSpace=mt._getUnpackColorSpace()}}const Ps=90,ko={top:[0,Ps],bottom:[180,-Ps],front:[180,0],back:[0,0],left:[-90,0],right:[90,0]},Ih=24,ay=1.12;class oy{constructor(e){this.points=e;const t=new W(1/0,1/0,1/0),i=t.clone().negate(),s=new W;for(let r=0;r<e.length;r+=3)s.fromArray(e,r),t.min(s),i.max(s);e.length>0&&this.middle.addVectors(t,i).multiplyScalar(.5)}points;azimuth=0;height=Ps;zoom=1;camera=new di(Ih,1,1,1e6);target=new W;middle=new W;shift=new W;get side(){const e=(this.azimuth%360+360)%360;return Object.entries(ko).find(([,[i,s]])=>Math.abs(s-this.height)<.01&&Math.abs((i+360)%360-e)<.01)?.[0]??""}look(e){const t=ko[e]??e.split(",").map(Number),[i,s,r]=t;i===void 0||s===void 0||!Number.isFinite(i+s)||(this.azimuth=i,this.height=Math.min(Math.max(s,-Ps),Ps),this.zoom=r!==void 0&&r>0?r:1,this.shift.set(0,0,0))}get text(){const e=this.side;return e&&Math.abs(this.zoom-1)<.01?e:[this.azimuth,this.height,this.zoom].map(t=>String(Number(t.toFixed(2)))).join(",")}get state(){return[this.azimuth,this.height,this.zoom,...this.shift.toArray()].join()}turn(e,t){this.azimuth-=e,this.height=Math.min(Math.max(this.height+t,-Ps),Ps)}nearer(e){this.zoom=Math.min(Math.max(this.zoom*e,.3),30)}move(e,t){const[i,s]=this.axes(),r=this.span/this.zoom;this.shift.addScaledVector(i,-e*r).addScaledVector(s,-t*r)}span=1;axes(){const e=this.azimuth*Math.PI/180,t=this.height*Math.PI/180,i=new W(Math.cos(e),Math.sin(e),0),s=new W(Math.cos(t)*Math.sin(e),-Math.cos(t)*Math.cos(e),Math.sin(t));return[i,new W().crossVectors(s,i),s]}place(e,t){const{camera:i,points:s,middle:r}=this,[a,o,l]=this.axes(),c=Math.tan(Ih*Math.PI/360),u=e/Math.max(t,1);let d=1;this.span=1;const f=new W;for(let g=0;g<s.length;g+=3){f.fromArray(s,g).sub(r);const M=Math.abs(f.dot(a))/u,p=Math.abs(f.dot(o));this.span=Math.max(this.span,2*M,2*p),d=Math.max(d,ay*Math.max(M,p,1)/c+f.dot(l))}const h=this.target.copy(r).add(this.shift);i.aspect=u,i.position.copy(h).addScaledVector(l,d/this.zoom),i.up.copy(o),i.lookAt(h),i.near=Math.max(d/this.zoom/100,.1),i.far=d*20,i.updateProjectionMatrix(),i.updateMatrixWorld()}}function ly({of:n}){return se("div",{class:"ask",role:"alertdialog","aria-label":"Flashes",children:[se("p",{children:"This light flashes more than three times a second. Such flashes can hurt people with photosensitive epilepsy."}),se("button",{onClick:()=>n.answer(!1),children:"Show it dimmed"}),se("button",{onClick:()=>n.answer(!0),children:"Show it as it is"})]})}function wr(n){if(Math.abs(n)<1e-6)return"0";const e=n.toPrecision(Math.abs(n)>=100?4:3);return e.includes("e")?e:String(Number(e))}function xr(n){const e=t=>{const i=Math.min(Math.max(t,0),1),s=i<=.0031308?i*12.92:1.055*i**(1/2.4)-.055;return Math.round(s*255).toString(16).padStart(2,"0")};return`#${n.map(e).join("")}`}function Uh(n){const e=Math.floor(n/60);return e>0?`${e}:${(n%60).toFixed(2).padStart(5,"0")}`:`${n.toFixed(2)} s`}const va=n=>`${Math.round(n*100)} %`;function cy(n,e){for(const[t,i,s]of n.runs)if(e>=t&&e<i)return s+e-t}function uy(n,e){const{look:t,module:i,spots:s}=n,r=i.places.layers,a=[];let o=[0,0,0];const l=new Map(r.map((d,f)=>[d.number,f]));for(const d of t.layers){const f=cy(d,e),h=l.get(d.number);if(f===void 0)continue;if(h===void 0){a.push({layer:d,isOn:!1,facts:[],before:o,after:o});continue}const g=i.lightWithout(e,p=>l.get(p)>h),M=i.read(r[h].on)!==0;a.push({layer:d,isOn:M,facts:M?fy(i,d,f,e):[],before:o,after:g}),o=g}const c=t.lines[s.line[e]],u=i.rgb().subarray(3*e,3*e+3);return{name:s.nameOf(e),line:c.name,order:c.order,address:s.address[e],touches:a,light:i.lightWithout(e,()=>!1),master:i.read(i.places.master),rgb:[u[0],u[1],u[2]]}}function fy(n,e,t,i){const s=n.tell(e.number,t,i),r=[],a=oc(s,"colour");a&&r.push(["shows",xr(a)]);const o=s("share");o!==void 0&&r.push(["covers",va(o)]);const l=s("level");l!==void 0&&r.push(["level",va(l)]);for(const[c,u]of Object.entries(e.written)){const d=`parameter:${c}`,f=oc(s,d),h=s(d);if(f)r.push([c,xr(f)]);else if(h!==void 0&&c!=="level"){const g=wr(h);r.push([c,g===u?g:`${g} (${u})`])}}return r}function hy({run:n,spot:e}){const t=uy(n,e),i=t.touches.toReversed();return se("section",{class:"led","aria-label":`LED ${t.name}`,children:[se("h2",{children:[se("i",{class:"chip",style:{background:xr(t.light)}})," ",t.name]}),se("p",{class:"faint",children:["line ",t.line,", address ",t.address,"; bytes ",t.rgb.join(" ")," (red green blue), sent as ",t.order,"; master"," ",va(t.master)]}),se("h2",{class:"over",children:"Its layers, top first"}),i.length===0&&se("p",{children:"No layer has this LED."}),se("ol",{class:"touches",children:i.map(({layer:s,isOn:r,facts:a,before:o,after:l})=>se("li",{class:r?"touch":"touch off",children:[se("span",{class:"name",children:[r&&se(dy,{from:xr(o),to:xr(l)}),s.name]}),se("span",{class:"faint",children:[s.effect," on ",s.on,", ",s.why]}),a.length>0&&se("span",{class:"facts",children:a.map(([c,u])=>se("span",{children:[c," ",se("b",{children:u})]},c))})]},s.number))})]})}function dy({from:n,to:e}){return se("span",{class:"change",title:`${n} before, ${e} after`,children:[se("i",{class:"chip",style:{background:n}}),se("i",{class:"chip",style:{background:e}})]})}const py=.08;class my{constructor(e,t){this.player=e,this.changed=t}player;changed;event="";axes=new Map;last=new Map;choose(e){this.event=e,this.changed()}bind(e,t){t?this.axes.set(e,t):this.axes.delete(e),this.changed()}get count(){return Fh()?.axes.length??0}touch(e){if(!this.event)return!1;const t=this.player.first.look.unit_mm;return this.player.do(this.event,"set",[1,e[0]/t,e[1]/t,e[2]/t]),!0}poll(){if(this.axes.size===0)return;const e=Fh();if(e)for(const[t,i]of this.axes){const s=e.axes[t]??0,r=this.player.first.look.signals.find(c=>c.name===i),a=this.last.get(t);if(!r||a!==void 0&&Math.abs(s-a)<.004)continue;this.last.set(t,s);const o=Math.abs(s)<py?0:s,l=r.low<0?(o+1)/2:Math.max(o,0);this.player.do(i,"set",[r.low+l*(r.high-r.low)])}}}function Fh(){if(typeof navigator.getGamepads=="function")return navigator.getGamepads().find(n=>n!==null)??void 0}const Wp=6,Kl=96,ro=22;class gy{known=new Map;size;constructor(e){this.size=Math.max(Math.round(Wp*e),2)}push(e,t){const i=this.known.get(e)??[];i.push(t),i.length>this.size&&i.shift(),this.known.set(e,i)}of(e){return this.known.get(e)??[]}get room(){return this.size}}function _y({player:n,traces:e,pads:t}){const{signals:i}=n.first.look;return i.length===0?se("p",{class:"faint",children:"This design has no signals."}):se("ul",{class:"signals","aria-label":"Signals",children:i.map(s=>se(vy,{signal:s,player:n,traces:e,pads:t},s.name))})}function vy({signal:n,player:e,traces:t,pads:i}){const{module:s,tape:r,frame:a}=e.first,o=e.deedOf(n.name),l=!Bd.has(n.kind)&&s.told(`why:lost:${n.name}`)===1,c=n.parts.some(f=>r?.has(f)),u=o?.what==="set"?o.values[0]:r?.last(n.parts[0]??"",a),d=n.of?"computed":o?.what==="lost"?"lost by hand":o?"by hand":c?"tape":"";return se("li",{class:o?"signal held":"signal",children:[se("div",{class:"head",children:[se("span",{class:"name",title:n.about||void 0,children:n.name}),se(Sy,{signal:n,player:e,isLost:l}),se(Ty,{values:t.of(n.name),room:t.room,signal:n,label:n.name})]}),n.of?se("p",{class:"faint written",children:n.of}):se("div",{class:"control",children:[se(yy,{signal:n,value:u??n.rest,values:xy(n,e),pads:i,set:(...f)=>e.do(n.name,"set",f)}),se("button",{class:o?.what==="lost"?"small on":"small","aria-pressed":o?.what==="lost","aria-label":`${n.name}: lost`,title:"treat it as lost",onClick:()=>e.do(n.name,o?.what==="lost"?"free":"lost"),children:"lost"})]}),!n.of&&se("p",{class:"faint foot",children:[se("span",{children:u===void 0?"no value yet":n.kind==="number"?`raw ${wr(u)}`:""}),se("span",{children:[d,o&&se("button",{class:"link",onClick:()=>e.do(n.name,"free"),children:c?"back to the tape":"release"})]})]})]})}function xy(n,e){const{tape:t,frame:i}=e.first,s=e.deedOf(n.name);return n.parts.map((r,a)=>s?.values[a]??t?.last(r,i)??n.rest)}function Sy({signal:n,player:e,isLost:t}){const{module:i}=e.first,s=`why:signal:${n.name}`;return se(My,{signal:n,value:i.told(s),light:i.toldLight(s),isLost:t})}function My({signal:n,value:e,light:t,isLost:i}){let s;return t?s=xr(t):e===void 0?s="":n.kind==="switch"||n.kind==="event"?s=e?"on":"off":n.words.length>0?s=n.words.find(r=>r.number===Math.round(e))?.word??(e>-1e6?wr(e):"none"):s=`${wr(e)}${n.unit?` ${n.unit}`:""}`,se("span",{class:i?"value lost":"value",children:[t&&se("i",{class:"chip",style:{background:s}}),s,i?" lost":""]})}function yy({signal:n,value:e,values:t,pads:i,set:s}){const r=n.name;switch(n.kind){case"switch":return se("button",{class:e>.5?"wide on":"wide","aria-pressed":e>.5,"aria-label":r,onClick:()=>s(e>.5?0:1),children:e>.5?"on":"off"});case"choice":return se("select",{"aria-label":r,value:String(e),onChange:a=>s(Number(a.currentTarget.value)),children:n.words.map(a=>se("option",{value:String(a.number),children:a.word},a.word))});case"text":return se("span",{class:"words",children:n.words.map(a=>se("button",{class:"small",onClick:()=>s(a.number),children:a.word},a.word))});case"colour":return se("input",{type:"color","aria-label":r,value:`#${Math.round(e).toString(16).padStart(6,"0")}`,onInput:a=>s(parseInt(a.currentTarget.value.slice(1),16))});case"event":return se("span",{class:"words",children:[se("button",{class:"wide",onClick:()=>s(1,0,0,0),children:"now"}),i&&se("button",{class:i.event===n.name?"small on":"small","aria-pressed":i.event===n.name,title:"then touch an LED: it happens there",onClick:()=>i.choose(i.event===n.name?"":n.name),children:"at an LED"})]});case"vector":return se(Ey,{signal:n,values:t,set:s});case"picture":return se("span",{class:"faint",children:"a live picture: black here"});default:return se("input",{type:"range","aria-label":`${r}${n.unit?`, ${n.unit}`:""}`,min:n.low,max:n.high,step:n.step,value:e,onInput:a=>s(Number(a.currentTarget.value)),title:`${wr(n.low)} to ${wr(n.high)} ${n.unit}`})}}function Ey({signal:n,values:e,set:t}){const i=n.high-n.low||1,s=(a,o)=>{const l=Math.min(Math.max(o,0),1);t(...e.map((c,u)=>u===a?n.low+l*i:c))},r=a=>{if(a.buttons===0)return;const o=a.currentTarget.getBoundingClientRect(),l=Math.floor((a.clientX-o.left)/o.width*e.length);l>=0&&l<e.length&&s(l,1-(a.clientY-o.top)/o.height)};return se("div",{class:"bars",onPointerDown:r,onPointerMove:r,children:e.map((a,o)=>se("input",{type:"range","aria-label":`${n.name}[${o}]`,min:n.low,max:n.high,step:n.step,value:a,style:{"--share":`${100*(a-n.low)/i}%`},onInput:l=>s(o,(Number(l.currentTarget.value)-n.low)/i)},o))})}function Ty({values:n,room:e,signal:t,label:i}){const s=Ci(null);return Ki(()=>{const r=s.current?.getContext("2d");if(!r)return;r.clearRect(0,0,2*Kl,2*ro);const a=t.kind==="number",o=a?Math.min(t.low,...n):0,l=a?Math.max(t.high,...n):1;r.strokeStyle="#8d97a8",r.lineWidth=2,r.beginPath(),n.forEach((c,u)=>{const d=2*Kl*(u+e-n.length)/e,f=2*ro-3-(2*ro-6)*(c-o)/(l-o||1);u===0?r.moveTo(d,f):r.lineTo(d,f)}),r.stroke()}),se("canvas",{ref:s,class:"trace",width:2*Kl,height:2*ro,role:"img","aria-label":`${i}, the last ${Wp} seconds`})}const by=!0,_n="u-",wy="uplot",Ay=_n+"hz",Ry=_n+"vt",Cy=_n+"title",Py=_n+"wrap",Ly=_n+"under",Dy=_n+"over",Ny=_n+"axis",Ls=_n+"off",Iy=_n+"select",Uy=_n+"cursor-x",Fy=_n+"cursor-y",Oy=_n+"cursor-pt",By=_n+"legend",zy=_n+"live",ky=_n+"inline",Gy=_n+"series",Hy=_n+"marker",Oh=_n+"label",Vy=_n+"value",na="width",ia="height",Jr="top",Bh="bottom",hr="left",Zl="right",Ou="#000",zh=Ou+"0",Jl="mousemove",kh="mousedown",Ql="mouseup",Gh="mouseenter",Hh="mouseleave",Vh="dblclick",Wy="resize",Xy="scroll",Wh="change",Go="dppxchange",Bu="--",Ir=typeof window<"u",ru=Ir?document:null,Sr=Ir?window:null,qy=Ir?navigator:null;let St,ao;function au(){let n=devicePixelRatio;St!=n&&(St=n,ao&&lu(Wh,ao,au),ao=matchMedia(`(min-resolution: ${St-.001}dppx) and (max-resolution: ${St+.001}dppx)`),Is(Wh,ao,au),Sr.dispatchEvent(new CustomEvent(Go)))}function qn(n,e){if(e!=null){let t=n.classList;!t.contains(e)&&t.add(e)}}function ou(n,e){let t=n.classList;t.contains(e)&&t.remove(e)}function zt(n,e,t){n.style[e]=t+"px"}function fi(n,e,t,i){let s=ru.createElement(n);return e!=null&&qn(s,e),t?.insertBefore(s,i),s}function jn(n,e){return fi("div",n,e)}const Xh=new WeakMap;function Ai(n,e,t,i,s){let r="translate("+e+"px,"+t+"px)",a=Xh.get(n);r!=a&&(n.style.transform=r,Xh.set(n,r),e<0||t<0||e>i||t>s?qn(n,Ls):ou(n,Ls))}const qh=new WeakMap;function Yh(n,e,t){let i=e+t,s=qh.get(n);i!=s&&(qh.set(n,i),n.style.background=e,n.style.borderColor=t)}const $h=new WeakMap;function Kh(n,e,t,i){let s=e+""+t,r=$h.get(n);s!=r&&($h.set(n,s),n.style.height=t+"px",n.style.width=e+"px",n.style.marginLeft=i?-e/2+"px":0,n.style.marginTop=i?-t/2+"px":0)}const zu={passive:!0},Yy={...zu,capture:!0};function Is(n,e,t,i){e.addEventListener(n,t,i?Yy:zu)}function lu(n,e,t,i){e.removeEventListener(n,t,zu)}Ir&&au();function hi(n,e,t,i){let s;t=t||0,i=i||e.length-1;let r=i<=2147483647;for(;i-t>1;)s=r?t+i>>1:$n((t+i)/2),e[s]<n?t=s:i=s;return n-e[t]<=e[i]-n?t:i}function Xp(n){return(t,i,s)=>{let r=-1,a=-1;for(let o=i;o<=s;o++)if(n(t[o])){r=o;break}for(let o=s;o>=i;o--)if(n(t[o])){a=o;break}return[r,a]}}const qp=n=>n!=null,Yp=n=>n!=null&&n>0,Zo=Xp(qp),$y=Xp(Yp);function Ky(n,e,t,i=0,s=!1){let r=s?$y:Zo,a=s?Yp:qp;[e,t]=r(n,e,t);let o=n[e],l=n[e];if(e>-1)if(i==1)o=n[e],l=n[t];else if(i==-1)o=n[t],l=n[e];else for(let c=e;c<=t;c++){let u=n[c];a(u)&&(u<o?o=u:u>l&&(l=u))}return[o??Lt,l??-Lt]}function Jo(n,e,t,i){let s=Qh(n),r=Qh(e);n==e&&(s==-1?(n*=t,e/=t):(n/=t,e*=t));let a=t==10?Qi:$p,o=s==1?$n:ti,l=r==1?ti:$n,c=o(a(hn(n))),u=l(a(hn(e))),d=Ar(t,c),f=Ar(t,u);return t==10&&(c<0&&(d=Dt(d,-c)),u<0&&(f=Dt(f,-u))),i||t==2?(n=d*s,e=f*r):(n=Qp(n,d),e=Qo(e,f)),[n,e]}function ku(n,e,t,i){let s=Jo(n,e,t,i);return n==0&&(s[0]=0),e==0&&(s[1]=0),s}const Gu=.1,Zh={mode:3,pad:Gu},ca={pad:0,soft:null,mode:0},Zy={min:ca,max:ca};function Ho(n,e,t,i){return jo(t)?Jh(n,e,t):(ca.pad=t,ca.soft=i?0:null,ca.mode=i?3:0,Jh(n,e,Zy))}function vt(n,e){return n??e}function Jy(n,e,t){for(e=vt(e,0),t=vt(t,n.length-1);e<=t;){if(n[e]!=null)return!0;e++}return!1}function Jh(n,e,t){let i=t.min,s=t.max,r=vt(i.pad,0),a=vt(s.pad,0),o=vt(i.hard,-Lt),l=vt(s.hard,Lt),c=vt(i.soft,Lt),u=vt(s.soft,-Lt),d=vt(i.mode,0),f=vt(s.mode,0),h=e-n,g=Qi(h),M=Un(hn(n),hn(e)),p=Qi(M),m=hn(p-g);(h<1e-24||m>10)&&(h=0,(n==0||e==0)&&(h=1e-24,d==2&&c!=Lt&&(r=0),f==2&&u!=-Lt&&(a=0)));let x=h||M||1e3,A=Qi(x),S=Ar(10,$n(A)),R=x*(h==0?n==0?.1:1:r),w=Dt(Qp(n-R,S/10),24),_=n>=c&&(d==1||d==3&&w<=c||d==2&&w>=c)?c:Lt,b=Un(o,w<_&&n>=_?_:mi(_,w)),z=x*(h==0?e==0?.1:1:a),N=Dt(Qo(e+z,S/10),24),L=e<=u&&(f==1||f==3&&N>=u||f==2&&N<=u)?u:-Lt,G=mi(l,N>L&&e<=L?L:Un(L,N));return b==G&&b==0&&(G=100),[b,G]}const Qy=new Intl.NumberFormat(Ir?qy.language:"en-US"),Hu=n=>Qy.format(n),Kn=Math,Eo=Kn.PI,hn=Kn.abs,$n=Kn.floor,fn=Kn.round,ti=Kn.ceil,mi=Kn.min,Un=Kn.max,Ar=Kn.pow,Qh=Kn.sign,Qi=Kn.log10,$p=Kn.log2,jy=(n,e=1)=>Kn.sinh(n)*e,jl=(n,e=1)=>Kn.asinh(n/e),Lt=1/0;function jh(n){return(Qi((n^n>>31)-(n>>31))|0)+1}function cu(n,e,t){return mi(Un(n,e),t)}function Kp(n){return typeof n=="function"}function pt(n){return Kp(n)?n:()=>n}const eE=()=>{},Zp=n=>n,Jp=(n,e)=>e,tE=n=>null,ed=n=>!0,td=(n,e)=>n==e,nE=/\.\d*?(?=9{6,}|0{6,})/gm,ks=n=>{if(em(n)||Ss.has(n))return n;const e=`${n}`,t=e.match(nE);if(t==null)return n;let i=t[0].length-1;if(e.indexOf("e-")!=-1){let[s,r]=e.split("e");return+`${ks(s)}e${r}`}return Dt(n,i)};function Rs(n,e){return ks(Dt(ks(n/e))*e)}function Qo(n,e){return ks(ti(ks(n/e))*e)}function Qp(n,e){return ks($n(ks(n/e))*e)}function Dt(n,e=0){if(em(n))return n;let t=10**e,i=n*t*(1+Number.EPSILON);return fn(i)/t}const Ss=new Map;function jp(n){return((""+n).split(".")[1]||"").length}function xa(n,e,t,i){let s=[],r=i.map(jp);for(let a=e;a<t;a++){let o=hn(a),l=Dt(Ar(n,a),o);for(let c=0;c<i.length;c++){let u=n==10?+`${i[c]}e${a}`:i[c]*l,d=(a>=0?0:o)+(a>=r[c]?0:r[c]),f=n==10?u:Dt(u,d);s.push(f),Ss.set(f,d)}}return s}const ua={},Vu=[],Rr=[null,null],ds=Array.isArray,em=Number.isInteger,iE=n=>n===void 0;function nd(n){return typeof n=="string"}function jo(n){let e=!1;if(n!=null){let t=n.constructor;e=t==null||t==Object}return e}function sE(n){return n!=null&&typeof n=="object"}const rE=Object.getPrototypeOf(Uint8Array),tm="__proto__";function Cr(n,e=jo){let t;if(ds(n)){let i=n.find(s=>s!=null);if(ds(i)||e(i)){t=Array(n.length);for(let s=0;s<n.length;s++)t[s]=Cr(n[s],e)}else t=n.slice()}else if(n instanceof rE)t=n.slice();else if(e(n)){t={};for(let i in n)i!=tm&&(t[i]=Cr(n[i],e))}else t=n;return t}function an(n){let e=arguments;for(let t=1;t<e.length;t++){let i=e[t];for(let s in i)s!=tm&&(jo(n[s])?an(n[s],Cr(i[s])):n[s]=Cr(i[s]))}return n}const aE=0,oE=1,lE=2;function cE(n,e,t){for(let i=0,s,r=-1;i<e.length;i++){let a=e[i];if(a>r){for(s=a-1;s>=0&&n[s]==null;)n[s--]=null;for(s=a+1;s<t&&n[s]==null;)n[r=s++]=null}}}function uE(n,e){if(dE(n)){let a=n[0].slice();for(let o=1;o<n.length;o++)a.push(...n[o].slice(1));return pE(a[0])||(a=hE(a)),a}let t=new Set;for(let a=0;a<n.length;a++){let l=n[a][0],c=l.length;for(let u=0;u<c;u++)t.add(l[u])}let i=[Array.from(t).sort((a,o)=>a-o)],s=i[0].length,r=new Map;for(let a=0;a<s;a++)r.set(i[0][a],a);for(let a=0;a<n.length;a++){let o=n[a],l=o[0];for(let c=1;c<o.length;c++){let u=o[c],d=Array(s).fill(void 0),f=e?e[a][c]:oE,h=[];for(let g=0;g<u.length;g++){let M=u[g],p=r.get(l[g]);M===null?f!=aE&&(d[p]=M,f==lE&&h.push(p)):d[p]=M}cE(d,h,s),i.push(d)}}return i}const fE=typeof queueMicrotask>"u"?n=>Promise.resolve().then(n):queueMicrotask;function hE(n){let e=n[0],t=e.length,i=Array(t);for(let r=0;r<i.length;r++)i[r]=r;i.sort((r,a)=>e[r]-e[a]);let s=[];for(let r=0;r<n.length;r++){let a=n[r],o=Array(t);for(let l=0;l<t;l++)o[l]=a[i[l]];s.push(o)}return s}function dE(n){let e=n[0][0],t=e.length;for(let i=1;i<n.length;i++){let s=n[i][0];if(s.length!=t)return!1;if(s!=e){for(let r=0;r<t;r++)if(s[r]!=e[r])return!1}}return!0}function pE(n,e=100){const t=n.length;if(t<=1)return!0;let i=0,s=t-1;for(;i<=s&&n[i]==null;)i++;for(;s>=i&&n[s]==null;)s--;if(s<=i)return!0;const r=Un(1,$n((s-i+1)/e));for(let a=n[i],o=i+r;o<=s;o+=r){const l=n[o];if(l!=null){if(l<=a)return!1;a=l}}return!0}const nm=["January","February","March","April","May","June","July","August","September","October","November","December"],im=["Sunday","Monday","Tuesday","Wednesday","Thursday","Friday","Saturday"];function sm(n){return n.slice(0,3)}const mE=im.map(sm),gE=nm.map(sm),_E={MMMM:nm,MMM:gE,WWWW:im,WWW:mE};function Qr(n){return(n<10?"0":"")+n}function vE(n){return(n<10?"00":n<100?"0":"")+n}const xE={YYYY:n=>n.getFullYear(),YY:n=>(n.getFullYear()+"").slice(2),MMMM:(n,e)=>e.MMMM[n.getMonth()],MMM:(n,e)=>e.MMM[n.getMonth()],MM:n=>Qr(n.getMonth()+1),M:n=>n.getMonth()+1,DD:n=>Qr(n.getDate()),D:n=>n.getDate(),WWWW:(n,e)=>e.WWWW[n.getDay()],WWW:(n,e)=>e.WWW[n.getDay()],HH:n=>Qr(n.getHours()),H:n=>n.getHours(),h:n=>{let e=n.getHours();return e==0?12:e>12?e-12:e},AA:n=>n.getHours()>=12?"PM":"AM",aa:n=>n.getHours()>=12?"pm":"am",a:n=>n.getHours()>=12?"p":"a",mm:n=>Qr(n.getMinutes()),m:n=>n.getMinutes(),ss:n=>Qr(n.getSeconds()),s:n=>n.getSeconds(),fff:n=>vE(n.getMilliseconds())};function Wu(n,e){e=e||_E;let t=[],i=/\{([a-z]+)\}|[^{]+/gi,s;for(;s=i.exec(n);)t.push(s[0][0]=="{"?xE[s[1]]:s[0]);return r=>{let a="";for(let o=0;o<t.length;o++)a+=typeof t[o]=="string"?t[o]:t[o](r,e);return a}}const SE=new Intl.DateTimeFormat().resolvedOptions().timeZone;function ME(n,e){let t;return e=="UTC"||e=="Etc/UTC"?t=new Date(+n+n.getTimezoneOffset()*6e4):e==SE?t=n:(t=new Date(n.toLocaleString("en-US",{timeZone:e})),t.setMilliseconds(n.getMilliseconds())),t}const rm=n=>n%1==0,Vo=[1,2,2.5,5],yE=xa(10,-32,0,Vo),am=xa(10,0,32,Vo),EE=am.filter(rm),Cs=yE.concat(am),Xu=`
`,om="{YYYY}",id=Xu+om,lm="{M}/{D}",sa=Xu+lm,oo=sa+"/{YY}",cm="{aa}",TE="{h}:{mm}",pr=TE+cm,sd=Xu+pr,rd=":{ss}",Et=null;function um(n){let e=n*1e3,t=e*60,i=t*60,s=i*24,r=s*30,a=s*365,l=(n==1?xa(10,0,3,Vo).filter(rm):xa(10,-3,0,Vo)).concat([e,e*5,e*10,e*15,e*30,t,t*5,t*10,t*15,t*30,i,i*2,i*3,i*4,i*6,i*8,i*12,s,s*2,s*3,s*4,s*5,s*6,s*7,s*8,s*9,s*10,s*15,r,r*2,r*3,r*4,r*6,a,a*2,a*5,a*10,a*25,a*50,a*100]);const c=[[a,om,Et,Et,Et,Et,Et,Et,1],[s*28,"{MMM}",id,Et,Et,Et,Et,Et,1],[s,lm,id,Et,Et,Et,Et,Et,1],[i,"{h}"+cm,oo,Et,sa,Et,Et,Et,1],[t,pr,oo,Et,sa,Et,Et,Et,1],[e,rd,oo+" "+pr,Et,sa+" "+pr,Et,sd,Et,1],[n,rd+".{fff}",oo+" "+pr,Et,sa+" "+pr,Et,sd,Et,1]];function u(d){return(f,h,g,M,p,m)=>{let x=[],A=p>=a,S=p>=r&&p<a,R=d(g),w=Dt(R*n,3),_=ec(R.getFullYear(),A?0:R.getMonth(),S||A?1:R.getDate()),b=Dt(_*n,3);if(S||A){let z=S?p/r:0,N=A?p/a:0,L=w==b?w:Dt(ec(_.getFullYear()+N,_.getMonth()+z,1)*n,3),G=new Date(fn(L/n)),k=G.getFullYear(),I=G.getMonth();for(let V=0;L<=M;V++){let Z=ec(k+N*V,I+z*V,1),B=Z-d(Dt(Z*n,3));L=Dt((+Z+B)*n,3),L<=M&&x.push(L)}}else{let z=p>=s?s:p,N=$n(g)-$n(w),L=b+N+Qo(w-b,z);x.push(L);let G=d(L),k=G.getHours()+G.getMinutes()/t+G.getSeconds()/i,I=p/i,V=f.axes[h]._space,Z=m/V;for(;L=Dt(L+p,n==1?0:3),!(L>M);)if(I>1){let B=$n(Dt(k+I,6))%24,Q=d(L).getHours()-B;Q>1&&(Q=-1),L-=Q*i,k=(k+I)%24;let ie=x[x.length-1];Dt((L-ie)/p,3)*Z>=.7&&x.push(L)}else x.push(L)}return x}}return[l,c,u]}const[bE,wE,AE]=um(1),[RE,CE,PE]=um(.001);xa(2,-53,53,[1]);function ad(n,e){return n.map(t=>t.map((i,s)=>s==0||s==8||i==null?i:e(s==1||t[8]==0?i:t[1]+i)))}function od(n,e){return(t,i,s,r,a)=>{let o=e.find(g=>a>=g[0])||e[e.length-1],l,c,u,d,f,h;return i.map(g=>{let M=n(g),p=M.getFullYear(),m=M.getMonth(),x=M.getDate(),A=M.getHours(),S=M.getMinutes(),R=M.getSeconds(),w=p!=l&&o[2]||m!=c&&o[3]||x!=u&&o[4]||A!=d&&o[5]||S!=f&&o[6]||R!=h&&o[7]||o[1];return l=p,c=m,u=x,d=A,f=S,h=R,w(M)})}}function LE(n,e){let t=Wu(e);return(i,s,r,a,o)=>s.map(l=>t(n(l)))}function ec(n,e,t){return new Date(n,e,t)}function ld(n,e){return e(n)}const DE="{YYYY}-{MM}-{DD} {h}:{mm}{aa}";function cd(n,e){return(t,i,s,r)=>r==null?Bu:e(n(i))}function NE(n,e){let t=n.series[e];return t.width?t.stroke(n,e):t.points.width?t.points.stroke(n,e):null}function IE(n,e){return n.series[e].fill(n,e)}const UE={show:!0,live:!0,isolate:!1,mount:eE,markers:{show:!0,width:2,stroke:NE,fill:IE,dash:"solid"},idx:null,idxs:null,values:[]};function FE(n,e){let t=n.cursor.points,i=jn(),s=t.size(n,e);zt(i,na,s),zt(i,ia,s);let r=s/-2;zt(i,"marginLeft",r),zt(i,"marginTop",r);let a=t.width(n,e,s);return a&&zt(i,"borderWidth",a),i}function OE(n,e){let t=n.series[e].points;return t._fill||t._stroke}function BE(n,e){let t=n.series[e].points;return t._stroke||t._fill}function zE(n,e){return n.series[e].points.size}const tc=[0,0];function kE(n,e,t){return tc[0]=e,tc[1]=t,tc}function lo(n,e,t,i=!0){return s=>{s.button==0&&(!i||s.target==e)&&t(s)}}function nc(n,e,t,i=!0){return s=>{(!i||s.target==e)&&t(s)}}const GE={show:!0,x:!0,y:!0,lock:!1,move:kE,points:{one:!1,show:FE,size:zE,width:0,stroke:BE,fill:OE},bind:{mousedown:lo,mouseup:lo,click:lo,dblclick:lo,mousemove:nc,mouseleave:nc,mouseenter:nc},drag:{setScale:!0,x:!0,y:!1,dist:0,uni:null,click:(n,e)=>{e.stopPropagation(),e.stopImmediatePropagation()},_x:!1,_y:!1},focus:{dist:(n,e,t,i,s)=>i-s,prox:-1,bias:0},hover:{skip:[void 0],prox:null,bias:0},left:-10,top:-10,idx:null,dataIdx:null,idxs:null,event:null},fm={show:!0,stroke:"rgba(0,0,0,0.07)",width:2},qu=an({},fm,{filter:Jp}),hm=an({},qu,{size:10}),dm=an({},fm,{show:!1}),Yu='12px system-ui, -apple-system, "Segoe UI", Roboto, "Helvetica Neue", Arial, "Noto Sans", sans-serif, "Apple Color Emoji", "Segoe UI Emoji", "Segoe UI Symbol", "Noto Color Emoji"',pm="bold "+Yu,mm=1.5,ud={show:!0,scale:"x",stroke:Ou,space:50,gap:5,alignTo:1,size:50,labelGap:0,labelSize:30,labelFont:pm,side:2,grid:qu,ticks:hm,border:dm,font:Yu,lineGap:mm,rotate:0},HE="Value",VE="Time",fd={show:!0,scale:"x",auto:!1,sorted:1,min:Lt,max:-Lt,idxs:[]};function WE(n,e,t,i,s){return e.map(r=>r==null?"":Hu(r))}function XE(n,e,t,i,s,r,a){let o=[],l=Ss.get(s)||0;t=a?t:Dt(Qo(t,s),l);for(let c=t;c<=i;c=Dt(c+s,l))o.push(Object.is(c,-0)?0:c);return o}function uu(n,e,t,i,s,r,a){const o=[],l=n.scales[n.axes[e].scale].log,c=l==10?Qi:$p,u=$n(c(t));s=Ar(l,u),l==10&&(s=Cs[hi(s,Cs)]);let d=t,f=s*l;l==10&&(f=Cs[hi(f,Cs)]);do o.push(d),d=d+s,l==10&&!Ss.has(d)&&(d=Dt(d,Ss.get(s))),d>=f&&(s=d,f=s*l,l==10&&(f=Cs[hi(f,Cs)]));while(d<=i);return o}function qE(n,e,t,i,s,r,a){let l=n.scales[n.axes[e].scale].asinh,c=i>l?uu(n,e,Un(l,t),i,s):[l],u=i>=0&&t<=0?[0]:[];return(t<-l?uu(n,e,Un(l,-i),-t,s):[l]).reverse().map(f=>-f).concat(u,c)}const gm=/./,YE=/[12357]/,$E=/[125]/,hd=/1/,fu=(n,e,t,i)=>n.map((s,r)=>e==4&&s==0||r%i==0&&t.test(s.toExponential()[s<0?1:0])?s:null);function KE(n,e,t,i,s){let r=n.axes[t],a=r.scale,o=n.scales[a],l=n.valToPos,c=r._space,u=l(10,a),d=l(9,a)-u>=c?gm:l(7,a)-u>=c?YE:l(5,a)-u>=c?$E:hd;if(d==hd){let f=hn(l(1,a)-u);if(f<c)return fu(e.slice().reverse(),o.distr,d,ti(c/f)).reverse()}return fu(e,o.distr,d,1)}function ZE(n,e,t,i,s){let r=n.axes[t],a=r.scale,o=r._space,l=n.valToPos,c=hn(l(1,a)-l(2,a));return c<o?fu(e.slice().reverse(),3,gm,ti(o/c)).reverse():e}function JE(n,e,t,i){return i==null?Bu:e==null?"":Hu(e)}const dd={show:!0,scale:"y",stroke:Ou,space:30,gap:5,alignTo:1,size:50,labelGap:0,labelSize:30,labelFont:pm,side:3,grid:qu,ticks:hm,border:dm,font:Yu,lineGap:mm,rotate:0};function QE(n,e){let t=3+(n||1)*2;return Dt(t*e,3)}function jE(n,e){let{scale:t,idxs:i}=n.series[0],s=n._data[0],r=n.valToPos(s[i[0]],t,!0),a=n.valToPos(s[i[1]],t,!0),o=hn(a-r),l=n.series[e],c=o/(l.points.space*St);return i[1]-i[0]<=c}const pd={scale:null,auto:!0,sorted:0,min:Lt,max:-Lt},_m=(n,e,t,i,s)=>s,md={show:!0,auto:!0,sorted:0,gaps:_m,alpha:1,facets:[an({},pd,{scale:"x"}),an({},pd,{scale:"y"})]},gd={scale:"y",auto:!0,sorted:0,show:!0,spanGaps:!1,gaps:_m,alpha:1,points:{show:jE,filter:null},values:null,min:Lt,max:-Lt,idxs:[],path:null,clip:null};function eT(n,e,t,i,s){return t/10}const vm={time:by,auto:!0,distr:1,log:10,asinh:1,min:null,max:null,dir:1,ori:0},tT=an({},vm,{time:!1,ori:1}),_d={};function xm(n,e){let t=_d[n];return t||(t={key:n,plots:[],sub(i){t.plots.push(i)},unsub(i){t.plots=t.plots.filter(s=>s!=i)},pub(i,s,r,a,o,l,c){for(let u=0;u<t.plots.length;u++)t.plots[u]!=s&&t.plots[u].pub(i,s,r,a,o,l,c)}},n!=null&&(_d[n]=t)),t}const Pr=1,hu=2;function Hs(n,e,t){const i=n.mode,s=n.series[e],r=i==2?n._data[e]:n._data,a=n.scales,o=n.bbox;let l=r[0],c=i==2?r[1]:r[e],u=i==2?a[s.facets[0].scale]:a[n.series[0].scale],d=i==2?a[s.facets[1].scale]:a[s.scale],f=o.left,h=o.top,g=o.width,M=o.height,p=n.valToPosH,m=n.valToPosV;return u.ori==0?t(s,l,c,u,d,p,m,f,h,g,M,tl,Ur,il,Mm,Em):t(s,l,c,u,d,m,p,h,f,M,g,nl,Fr,Zu,ym,Tm)}function $u(n,e){let t=0,i=0,s=vt(n.bands,Vu);for(let r=0;r<s.length;r++){let a=s[r];a.series[0]==e?t=a.dir:a.series[1]==e&&(a.dir==1?i|=1:i|=2)}return[t,i==1?-1:i==2?1:i==3?2:0]}function nT(n,e,t,i,s){let r=n.mode,a=n.series[e],o=r==2?a.facets[1].scale:a.scale,l=n.scales[o];return s==-1?l.min:s==1?l.max:l.distr==3?l.dir==1?l.min:l.max:0}function ji(n,e,t,i,s,r){return Hs(n,e,(a,o,l,c,u,d,f,h,g,M,p)=>{let m=a.pxRound;const x=c.dir*(c.ori==0?1:-1),A=c.ori==0?Ur:Fr;let S,R;x==1?(S=t,R=i):(S=i,R=t);let w=m(d(o[S],c,M,h)),_=m(f(l[S],u,p,g)),b=m(d(o[R],c,M,h)),z=m(f(r==1?u.max:u.min,u,p,g)),N=new Path2D(s);return A(N,b,z),A(N,w,z),A(N,w,_),N})}function el(n,e,t,i,s,r){let a=null;if(n.length>0){a=new Path2D;const o=e==0?il:Zu;let l=t;for(let d=0;d<n.length;d++){let f=n[d];if(f[1]>f[0]){let h=f[0]-l;h>0&&o(a,l,i,h,i+r),l=f[1]}}let c=t+s-l,u=10;c>0&&o(a,l,i-u/2,c,i+r+u)}return a}function iT(n,e,t){let i=n[n.length-1];i&&i[0]==e?i[1]=t:n.push([e,t])}function Ku(n,e,t,i,s,r,a){let o=[],l=n.length;for(let c=s==1?t:i;c>=t&&c<=i;c+=s)if(e[c]===null){let d=c,f=c;if(s==1)for(;++c<=i&&e[c]===null;)f=c;else for(;--c>=t&&e[c]===null;)f=c;let h=r(n[d]),g=f==d?h:r(n[f]),M=d-s;h=a<=0&&M>=0&&M<l?r(n[M]):h;let m=f+s;g=a>=0&&m>=0&&m<l?r(n[m]):g,g>=h&&o.push([h,g])}return o}function vd(n){return n==0?Zp:n==1?fn:e=>Rs(e,n)}function Sm(n){let e=n==0?tl:nl,t=n==0?(s,r,a,o,l,c)=>{s.arcTo(r,a,o,l,c)}:(s,r,a,o,l,c)=>{s.arcTo(a,r,l,o,c)},i=n==0?(s,r,a,o,l)=>{s.rect(r,a,o,l)}:(s,r,a,o,l)=>{s.rect(a,r,l,o)};return(s,r,a,o,l,c=0,u=0)=>{c==0&&u==0?i(s,r,a,o,l):(c=mi(c,o/2,l/2),u=mi(u,o/2,l/2),e(s,r+c,a),t(s,r+o,a,r+o,a+l,c),t(s,r+o,a+l,r,a+l,u),t(s,r,a+l,r,a,u),t(s,r,a,r+o,a,c),s.closePath())}}const tl=(n,e,t)=>{n.moveTo(e,t)},nl=(n,e,t)=>{n.moveTo(t,e)},Ur=(n,e,t)=>{n.lineTo(e,t)},Fr=(n,e,t)=>{n.lineTo(t,e)},il=Sm(0),Zu=Sm(1),Mm=(n,e,t,i,s,r)=>{n.arc(e,t,i,s,r)},ym=(n,e,t,i,s,r)=>{n.arc(t,e,i,s,r)},Em=(n,e,t,i,s,r,a)=>{n.bezierCurveTo(e,t,i,s,r,a)},Tm=(n,e,t,i,s,r,a)=>{n.bezierCurveTo(t,e,s,i,a,r)};function bm(n){return(e,t,i,s,r)=>Hs(e,t,(a,o,l,c,u,d,f,h,g,M,p)=>{let{pxRound:m,points:x}=a,A,S;c.ori==0?(A=tl,S=Mm):(A=nl,S=ym);const R=Dt(x.width*St,3);let w=(x.size-x.width)/2*St,_=Dt(w*2,3),b=new Path2D,z=new Path2D,{left:N,top:L,width:G,height:k}=e.bbox;il(z,N-_,L-_,G+_*2,k+_*2);const I=V=>{if(l[V]!=null){let Z=m(d(o[V],c,M,h)),B=m(f(l[V],u,p,g));A(b,Z+w,B),S(b,Z,B,w,0,Eo*2)}};if(r)r.forEach(I);else for(let V=i;V<=s;V++)I(V);return{stroke:R>0?b:null,fill:b,clip:z,flags:Pr|hu}})}function wm(n){return(e,t,i,s,r,a)=>{i!=s&&(r!=i&&a!=i&&n(e,t,i),r!=s&&a!=s&&n(e,t,s),n(e,t,a))}}const sT=wm(Ur),rT=wm(Fr);function Am(n){const e=vt(n?.alignGaps,0);return(t,i,s,r)=>Hs(t,i,(a,o,l,c,u,d,f,h,g,M,p)=>{[s,r]=Zo(l,s,r);let m=a.pxRound,x=k=>m(d(k,c,M,h)),A=k=>m(f(k,u,p,g)),S,R;c.ori==0?(S=Ur,R=sT):(S=Fr,R=rT);const w=c.dir*(c.ori==0?1:-1),_={stroke:new Path2D,fill:null,clip:null,band:null,gaps:null,flags:Pr},b=_.stroke;let z=!1;if(r-s>=M*4){let k=fe=>t.posToVal(fe,c.key,!0),I=null,V=null,Z,B,ce,K=x(o[w==1?s:r]),Q=x(o[s]),ie=x(o[r]),he=k(w==1?Q+1:ie-1);for(let fe=w==1?s:r;fe>=s&&fe<=r;fe+=w){let j=o[fe],ve=(w==1?j<he:j>he)?K:x(j),Ae=l[fe];ve==K?Ae!=null?(B=Ae,I==null?(S(b,ve,A(B)),Z=I=V=B):B<I?I=B:B>V&&(V=B)):Ae===null&&(z=!0):(I!=null&&R(b,K,A(I),A(V),A(Z),A(B)),Ae!=null?(B=Ae,S(b,ve,A(B)),I=V=Z=B):(I=V=null,Ae===null&&(z=!0)),K=ve,he=k(K+w))}I!=null&&I!=V&&ce!=K&&R(b,K,A(I),A(V),A(Z),A(B))}else for(let k=w==1?s:r;k>=s&&k<=r;k+=w){let I=l[k];I===null?z=!0:I!=null&&S(b,x(o[k]),A(I))}let[L,G]=$u(t,i);if(a.fill!=null||L!=0){let k=_.fill=new Path2D(b),I=a.fillTo(t,i,a.min,a.max,L),V=A(I),Z=x(o[s]),B=x(o[r]);w==-1&&([B,Z]=[Z,B]),S(k,B,V),S(k,Z,V)}if(!a.spanGaps){let k=[];z&&k.push(...Ku(o,l,s,r,w,x,e)),_.gaps=k=a.gaps(t,i,s,r,k),_.clip=el(k,c.ori,h,g,M,p)}return G!=0&&(_.band=G==2?[ji(t,i,s,r,b,-1),ji(t,i,s,r,b,1)]:ji(t,i,s,r,b,G)),_})}function aT(n){const e=vt(n.align,1),t=vt(n.ascDesc,!1),i=vt(n.alignGaps,0),s=vt(n.extend,!1);return(r,a,o,l)=>Hs(r,a,(c,u,d,f,h,g,M,p,m,x,A)=>{[o,l]=Zo(d,o,l);let S=c.pxRound,{left:R,width:w}=r.bbox,_=Q=>S(g(Q,f,x,p)),b=Q=>S(M(Q,h,A,m)),z=f.ori==0?Ur:Fr;const N={stroke:new Path2D,fill:null,clip:null,band:null,gaps:null,flags:Pr},L=N.stroke,G=f.dir*(f.ori==0?1:-1);let k=b(d[G==1?o:l]),I=_(u[G==1?o:l]),V=I,Z=I;s&&e==-1&&(Z=R,z(L,Z,k)),z(L,I,k);for(let Q=G==1?o:l;Q>=o&&Q<=l;Q+=G){let ie=d[Q];if(ie==null)continue;let he=_(u[Q]),fe=b(ie);e==1?z(L,he,k):z(L,V,fe),z(L,he,fe),k=fe,V=he}let B=V;s&&e==1&&(B=R+w,z(L,B,k));let[ce,K]=$u(r,a);if(c.fill!=null||ce!=0){let Q=N.fill=new Path2D(L),ie=c.fillTo(r,a,c.min,c.max,ce),he=b(ie);z(Q,B,he),z(Q,Z,he)}if(!c.spanGaps){let Q=[];Q.push(...Ku(u,d,o,l,G,_,i));let ie=c.width*St/2,he=t||e==1?ie:-ie,fe=t||e==-1?-ie:ie;Q.forEach(j=>{j[0]+=he,j[1]+=fe}),N.gaps=Q=c.gaps(r,a,o,l,Q),N.clip=el(Q,f.ori,p,m,x,A)}return K!=0&&(N.band=K==2?[ji(r,a,o,l,L,-1),ji(r,a,o,l,L,1)]:ji(r,a,o,l,L,K)),N})}function xd(n,e,t,i,s,r,a=Lt){if(n.length>1){let o=null;for(let l=0,c=1/0;l<n.length;l++)if(e[l]!==void 0){if(o!=null){let u=hn(n[l]-n[o]);u<c&&(c=u,a=hn(t(n[l],i,s,r)-t(n[o],i,s,r)))}o=l}}return a}function oT(n){n=n||ua;const e=vt(n.size,[.6,Lt,1]),t=n.align||0,i=n.gap||0;let s=n.radius;s=s==null?[0,0]:typeof s=="number"?[s,0]:s;const r=pt(s),a=1-e[0],o=vt(e[1],Lt),l=vt(e[2],1),c=vt(n.disp,ua),u=vt(n.each,h=>{}),{fill:d,stroke:f}=c;return(h,g,M,p)=>Hs(h,g,(m,x,A,S,R,w,_,b,z,N,L)=>{let G=m.pxRound,k=t,I=i*St,V=o*St,Z=l*St,B,ce;S.ori==0?[B,ce]=r(h,g):[ce,B]=r(h,g);const K=S.dir*(S.ori==0?1:-1);let Q=S.ori==0?il:Zu,ie=S.ori==0?u:(Ce,Ye,nt,Ee,Pt,ke,qe)=>{u(Ce,Ye,nt,Pt,Ee,qe,ke)},he=vt(h.bands,Vu).find(Ce=>Ce.series[0]==g),fe=he!=null?he.dir:0,j=m.fillTo(h,g,m.min,m.max,fe),me=G(_(j,R,L,z)),ve,Ae,ye,We=N,tt=G(m.width*St),Ge=!1,lt=null,rt=null,je=null,kt=null;d!=null&&(tt==0||f!=null)&&(Ge=!0,lt=d.values(h,g,M,p),rt=new Map,new Set(lt).forEach(Ce=>{Ce!=null&&rt.set(Ce,new Path2D)}),tt>0&&(je=f.values(h,g,M,p),kt=new Map,new Set(je).forEach(Ce=>{Ce!=null&&kt.set(Ce,new Path2D)})));let{x0:It,size:Qt}=c;if(It!=null&&Qt!=null){k=1,x=It.values(h,g,M,p),It.unit==2&&(x=x.map(nt=>h.posToVal(b+nt*N,S.key,!0)));let Ce=Qt.values(h,g,M,p);Qt.unit==2?Ae=Ce[0]*N:Ae=w(Ce[0],S,N,b)-w(0,S,N,b),We=xd(x,A,w,S,N,b,We),ye=We-Ae+I}else We=xd(x,A,w,S,N,b,We),ye=We*a+I,Ae=We-ye;ye<1&&(ye=0),tt>=Ae/2&&(tt=0),ye<5&&(G=Zp);let Rt=ye>0,vn=We-ye-(Rt?tt:0);Ae=G(cu(vn,Z,V)),ve=(k==0?Ae/2:k==K?0:Ae)-k*K*((k==0?I/2:0)+(Rt?tt/2:0));const gt={stroke:null,fill:null,clip:null,band:null,gaps:null,flags:0},cn=Ge?null:new Path2D;let Xt=null;if(he!=null)Xt=h.data[he.series[1]];else{let{y0:Ce,y1:Ye}=c;Ce!=null&&Ye!=null&&(A=Ye.values(h,g,M,p),Xt=Ce.values(h,g,M,p))}let jt=B*Ae,F=ce*Ae;for(let Ce=K==1?M:p;Ce>=M&&Ce<=p;Ce+=K){let Ye=A[Ce];if(Ye==null)continue;if(Xt!=null){let X=Xt[Ce]??0;if(Ye-X==0)continue;me=_(X,R,L,z)}let nt=S.distr!=2||c!=null?x[Ce]:Ce,Ee=w(nt,S,N,b),Pt=_(vt(Ye,j),R,L,z),ke=G(Ee-ve),qe=G(Un(Pt,me)),C=G(mi(Pt,me)),y=qe-C;if(Ye!=null){let X=Ye<0?F:jt,ue=Ye<0?jt:F;Ge?(tt>0&&je[Ce]!=null&&Q(kt.get(je[Ce]),ke,C+$n(tt/2),Ae,Un(0,y-tt),X,ue),lt[Ce]!=null&&Q(rt.get(lt[Ce]),ke,C+$n(tt/2),Ae,Un(0,y-tt),X,ue)):Q(cn,ke,C+$n(tt/2),Ae,Un(0,y-tt),X,ue),ie(h,g,Ce,ke-tt/2,C,Ae+tt,y)}}return tt>0?gt.stroke=Ge?kt:cn:Ge||(gt._fill=m.width==0?m._fill:m._stroke??m._fill,gt.width=0),gt.fill=Ge?rt:cn,gt})}function lT(n,e){const t=vt(e?.alignGaps,0);return(i,s,r,a)=>Hs(i,s,(o,l,c,u,d,f,h,g,M,p,m)=>{[r,a]=Zo(c,r,a);let x=o.pxRound,A=B=>x(f(B,u,p,g)),S=B=>x(h(B,d,m,M)),R,w,_;u.ori==0?(R=tl,_=Ur,w=Em):(R=nl,_=Fr,w=Tm);const b=u.dir*(u.ori==0?1:-1);let z=A(l[b==1?r:a]),N=z,L=[],G=[];for(let B=b==1?r:a;B>=r&&B<=a;B+=b)if(c[B]!=null){let K=l[B],Q=A(K);L.push(N=Q),G.push(S(c[B]))}const k={stroke:n(L,G,R,_,w,x),fill:null,clip:null,band:null,gaps:null,flags:Pr},I=k.stroke;let[V,Z]=$u(i,s);if(o.fill!=null||V!=0){let B=k.fill=new Path2D(I),ce=o.fillTo(i,s,o.min,o.max,V),K=S(ce);_(B,N,K),_(B,z,K)}if(!o.spanGaps){let B=[];B.push(...Ku(l,c,r,a,b,A,t)),k.gaps=B=o.gaps(i,s,r,a,B),k.clip=el(B,u.ori,g,M,p,m)}return Z!=0&&(k.band=Z==2?[ji(i,s,r,a,I,-1),ji(i,s,r,a,I,1)]:ji(i,s,r,a,I,Z)),k})}function cT(n){return lT(uT,n)}function uT(n,e,t,i,s,r){const a=n.length;if(a<2)return null;const o=new Path2D;if(t(o,n[0],e[0]),a==2)i(o,n[1],e[1]);else{let l=Array(a),c=Array(a-1),u=Array(a-1),d=Array(a-1);for(let f=0;f<a-1;f++)u[f]=e[f+1]-e[f],d[f]=n[f+1]-n[f],c[f]=u[f]/d[f];l[0]=c[0];for(let f=1;f<a-1;f++)c[f]===0||c[f-1]===0||c[f-1]>0!=c[f]>0?l[f]=0:(l[f]=3*(d[f-1]+d[f])/((2*d[f]+d[f-1])/c[f-1]+(d[f]+2*d[f-1])/c[f]),isFinite(l[f])||(l[f]=0));l[a-1]=c[a-2];for(let f=0;f<a-1;f++)s(o,n[f]+d[f]/3,e[f]+l[f]*d[f]/3,n[f+1]-d[f]/3,e[f+1]-l[f+1]*d[f]/3,n[f+1],e[f+1])}return o}const du=new Set;function Sd(){for(let n of du)n.syncRect(!0)}Ir&&(Is(Wy,Sr,Sd),Is(Xy,Sr,Sd,!0),Is(Go,Sr,()=>{Rn.pxRatio=St}));const fT=Am(),hT=bm();function Md(n,e,t,i){return(i?[n[0],n[1]].concat(n.slice(2)):[n[0]].concat(n.slice(1))).map((r,a)=>pu(r,a,e,t))}function dT(n,e){return n.map((t,i)=>i==0?{}:an({},e,t))}function pu(n,e,t,i){return an({},e==0?t:i,n)}function Rm(n,e,t){return e==null?Rr:[e,t]}const pT=Rm;function mT(n,e,t){return e==null?Rr:Ho(e,t,Gu,!0)}function Cm(n,e,t,i){return e==null?Rr:Jo(e,t,n.scales[i].log,!1)}const gT=Cm;function Pm(n,e,t,i){return e==null?Rr:ku(e,t,n.scales[i].log,!1)}const _T=Pm;function vT(n,e,t,i,s){let r=Un(jh(n),jh(e)),a=e-n,o=hi(s/i*a,t);do{let l=t[o],c=i*l/a;if(c>=s&&r+(l<5?Ss.get(l):0)<=17)return[l,c]}while(++o<t.length);return[0,0]}function yd(n){let e,t;return n=n.replace(/(\d+)px/,(i,s)=>(e=fn((t=+s)*St))+"px"),[n,e,t]}function xT(n){n.show&&[n.font,n.labelFont].forEach(e=>{let t=Dt(e[2]*St,1);e[0]=e[0].replace(/[0-9.]+px/,t+"px"),e[1]=t})}function Rn(n,e,t){const i={mode:vt(n.mode,1)},s=i.mode;function r(v,E,P,D){let H=E.valToPct(v);return D+P*(E.dir==-1?1-H:H)}function a(v,E,P,D){let H=E.valToPct(v);return D+P*(E.dir==-1?H:1-H)}function o(v,E,P,D){return E.ori==0?r(v,E,P,D):a(v,E,P,D)}i.valToPosH=r,i.valToPosV=a;let l=!1;i.status=0;const c=i.root=jn(wy);if(n.id!=null&&(c.id=n.id),qn(c,n.class),n.title){let v=jn(Cy,c);v.textContent=n.title}const u=fi("canvas"),d=i.ctx=u.getContext("2d"),f=jn(Py,c);Is("click",f,v=>{v.target===g&&(Ft!=Ks||Gt!=Zs)&&Tn.click(i,v)},!0);const h=i.under=jn(Ly,f);f.appendChild(u);const g=i.over=jn(Dy,f);n=Cr(n);const M=+vt(n.pxAlign,1),p=vd(M);(n.plugins||[]).forEach(v=>{v.opts&&(n=v.opts(i,n)||n)});const m=n.ms||.001,x=i.series=s==1?Md(n.series||[],fd,gd,!1):dT(n.series||[null],md),A=i.axes=Md(n.axes||[],ud,dd,!0),S=i.scales={},R=i.bands=n.bands||[];R.forEach(v=>{v.fill=pt(v.fill||null),v.dir=vt(v.dir,-1)});const w=s==2?x[1].facets[0].scale:x[0].scale,_={axes:ki,series:ut},b=(n.drawOrder||["axes","series"]).map(v=>_[v]);function z(v){const E=v.distr==3?P=>Qi(P>0?P:v.clamp(i,P,v.min,v.max,v.key)):v.distr==4?P=>jl(P,v.asinh):v.distr==100?P=>v.fwd(P):P=>P;return P=>{let D=E(P),{_min:H,_max:$}=v,oe=$-H;return(D-H)/oe}}function N(v){let E=S[v];if(E==null){let P=(n.scales||ua)[v]||ua;if(P.from!=null){N(P.from);let D=an({},S[P.from],P,{key:v});D.valToPct=z(D),S[v]=D}else{E=S[v]=an({},v==w?vm:tT,P),E.key=v;let D=E.time,H=E.range,$=ds(H);if((v!=w||s==2&&!D)&&($&&(H[0]==null||H[1]==null)&&(H={min:H[0]==null?Zh:{mode:1,hard:H[0],soft:H[0]},max:H[1]==null?Zh:{mode:1,hard:H[1],soft:H[1]}},$=!1),!$&&jo(H))){let oe=H;H=(de,Se,Ne)=>Se==null?Rr:Ho(Se,Ne,oe)}E.range=pt(H||(D?pT:v==w?E.distr==3?gT:E.distr==4?_T:Rm:E.distr==3?Cm:E.distr==4?Pm:mT)),E.auto=pt($?!1:E.auto),E.clamp=pt(E.clamp||eT),E._min=E._max=null,E.valToPct=z(E)}}}N("x"),N("y"),s==1&&x.forEach(v=>{N(v.scale)}),A.forEach(v=>{N(v.scale)});for(let v in n.scales)N(v);const L=S[w],G=L.distr;let k,I;L.ori==0?(qn(c,Ay),k=r,I=a):(qn(c,Ry),k=a,I=r);const V={};for(let v in S){let E=S[v];(E.min!=null||E.max!=null)&&(V[v]={min:E.min,max:E.max},E.min=E.max=null)}const Z=n.tzDate||(v=>new Date(fn(v/m))),B=n.fmtDate||Wu,ce=m==1?AE(Z):PE(Z),K=od(Z,ad(m==1?wE:CE,B)),Q=cd(Z,ld(DE,B)),ie=[],he=i.legend=an({},UE,n.legend),fe=i.cursor=an({},GE,{drag:{y:s==2}},n.cursor),j=he.show,me=fe.show,ve=he.markers;he.idxs=ie,ve.width=pt(ve.width),ve.dash=pt(ve.dash),ve.stroke=pt(ve.stroke),ve.fill=pt(ve.fill);let Ae,ye,We,tt=[],Ge=[],lt,rt=!1,je={};if(he.live){const v=x[1]?x[1].values:null;rt=v!=null,lt=rt?v(i,1,0):{_:0};for(let E in lt)je[E]=Bu}if(j)if(Ae=fi("table",By,c),We=fi("tbody",null,Ae),he.mount(i,Ae),rt){ye=fi("thead",null,Ae,We);let v=fi("tr",null,ye);fi("th",null,v);for(var kt in lt)fi("th",Oh,v).textContent=kt}else qn(Ae,ky),he.live&&qn(Ae,zy);const It={show:!0},Qt={show:!1};function Rt(v,E){if(E==0&&(rt||!he.live||s==2))return Rr;let P=[],D=fi("tr",Gy,We,We.childNodes[E]);qn(D,v.class),v.show||qn(D,Ls);let H=fi("th",null,D);if(ve.show){let de=jn(Hy,H);if(E>0){let Se=ve.width(i,E);Se&&(de.style.border=Se+"px "+ve.dash(i,E)+" "+ve.stroke(i,E)),de.style.background=ve.fill(i,E)}}let $=jn(Oh,H);v.label instanceof HTMLElement?$.appendChild(v.label):$.textContent=v.label,E>0&&(ve.show||($.style.color=v.width>0?ve.stroke(i,E):ve.fill(i,E)),gt("click",H,de=>{if(fe._lock)return;Ke(de);let Se=x.indexOf(v);if((de.ctrlKey||de.metaKey)!=he.isolate){let Ne=x.some((Ie,Fe)=>Fe>0&&Fe!=Se&&Ie.show);x.forEach((Ie,Fe)=>{Fe>0&&Mi(Fe,Ne?Fe==Se?It:Qt:It,!0,sn.setSeries)})}else Mi(Se,{show:!v.show},!0,sn.setSeries)},!1),Ze&&gt(Gh,H,de=>{fe._lock||(Ke(de),Mi(x.indexOf(v),Qs,!0,sn.setSeries))},!1));for(var oe in lt){let de=fi("td",Vy,D);de.textContent="--",P.push(de)}return[D,P]}const vn=new Map;function gt(v,E,P,D=!0){const H=vn.get(E)||{},$=fe.bind[v](i,E,P,D);$&&(Is(v,E,H[v]=$),vn.set(E,H))}function cn(v,E,P){const D=vn.get(E)||{};for(let H in D)(v==null||H==v)&&(lu(H,E,D[H]),delete D[H]);v==null&&vn.delete(E)}let Xt=0,jt=0,F=0,Ce=0,Ye=0,nt=0,Ee=Ye,Pt=nt,ke=F,qe=Ce,C=0,y=0,X=0,ue=0;i.bbox={};let ae=!1,_e=!1,xe=!1,ee=!1,ne=!1,pe=!1;function U(v,E,P){(P||v!=i.width||E!=i.height)&&re(v,E),at(!1),xe=!0,_e=!0,bn()}function re(v,E){i.width=Xt=F=v,i.height=jt=Ce=E,Ye=nt=0,Me(),He();let P=i.bbox;C=P.left=Rs(Ye*St,.5),y=P.top=Rs(nt*St,.5),X=P.width=Rs(F*St,.5),ue=P.height=Rs(Ce*St,.5)}const te=3;function Te(){let v=!1,E=0;for(;!v;){E++;let P=qs(E),D=Si(E);v=E==te||P&&D,v||(re(i.width,i.height),_e=!0)}}function ge({width:v,height:E}){U(v,E)}i.setSize=ge;function Me(){let v=!1,E=!1,P=!1,D=!1;A.forEach((H,$)=>{if(H.show&&H._show){let{side:oe,_size:de}=H,Se=oe%2,Ne=H.label!=null?H.labelSize:0,Ie=de+Ne;Ie>0&&(Se?(F-=Ie,oe==3?(Ye+=Ie,D=!0):P=!0):(Ce-=Ie,oe==0?(nt+=Ie,v=!0):E=!0))}}),vi[0]=v,vi[1]=P,vi[2]=E,vi[3]=D,F-=ri[1]+ri[3],Ye+=ri[3],Ce-=ri[2]+ri[0],nt+=ri[0]}function He(){let v=Ye+F,E=nt+Ce,P=Ye,D=nt;function H($,oe){switch($){case 1:return v+=oe,v-oe;case 2:return E+=oe,E-oe;case 3:return P-=oe,P+oe;case 0:return D-=oe,D+oe}}A.forEach(($,oe)=>{if($.show&&$._show){let de=$.side;$._pos=H(de,$._size),$.label!=null&&($._lpos=H(de,$.labelSize))}})}if(fe.dataIdx==null){let v=fe.hover,E=v.skip=new Set(v.skip??[]);E.add(void 0);let P=v.prox=pt(v.prox),D=v.bias??=0;fe.dataIdx=(H,$,oe,de)=>{if($==0)return oe;let Se=oe,Ne=P(H,$,oe,de)??Lt,Ie=Ne>=0&&Ne<Lt,Fe=L.ori==0?F:Ce,et=fe.left,xt=e[0],_t=e[$];if(E.has(_t[oe])){Se=null;let ft=null,$e=null,Xe;if(D==0||D==-1)for(Xe=oe;ft==null&&Xe-- >0;)E.has(_t[Xe])||(ft=Xe);if(D==0||D==1)for(Xe=oe;$e==null&&Xe++<_t.length;)E.has(_t[Xe])||($e=Xe);if(ft!=null||$e!=null)if(Ie){let Bt=ft==null?-1/0:k(xt[ft],L,Fe,0),$t=$e==null?1/0:k(xt[$e],L,Fe,0),yn=et-Bt,Ct=$t-et;yn<=Ct?yn<=Ne&&(Se=ft):Ct<=Ne&&(Se=$e)}else Se=$e==null?ft:ft==null?$e:oe-ft<=$e-oe?ft:$e}else Ie&&hn(et-k(xt[oe],L,Fe,0))>Ne&&(Se=null);return Se}}const Ke=v=>{fe.event=v};fe.idxs=ie,fe._lock=!1;let le=fe.points;le.show=pt(le.show),le.size=pt(le.size),le.stroke=pt(le.stroke),le.width=pt(le.width),le.fill=pt(le.fill);const Oe=i.focus=an({},n.focus||{alpha:.3},fe.focus),Ze=Oe.prox>=0,Re=Ze&&le.one;let st=[],Ut=[],Cn=[];function Or(v,E){let P=le.show(i,E);if(P instanceof HTMLElement)return qn(P,Oy),qn(P,v.class),Ai(P,-10,-10,F,Ce),g.insertBefore(P,st[E]),P}function Vs(v,E){if(s==1||E>0){let P=s==1&&S[v.scale].time,D=v.value;v.value=P?nd(D)?cd(Z,ld(D,B)):D||Q:D||JE,v.label=v.label||(P?VE:HE)}if(Re||E>0){v.width=v.width==null?1:v.width,v.paths=v.paths||fT||tE,v.fillTo=pt(v.fillTo||nT),v.pxAlign=+vt(v.pxAlign,M),v.pxRound=vd(v.pxAlign),v.stroke=pt(v.stroke||null),v.fill=pt(v.fill||null),v._stroke=v._fill=v._paths=v._focus=null;let P=QE(Un(1,v.width),1),D=v.points=an({},{size:P,width:Un(1,P*.2),stroke:v.stroke,space:P*2,paths:hT,_stroke:null,_fill:null},v.points);D.show=pt(D.show),D.filter=pt(D.filter),D.fill=pt(D.fill),D.stroke=pt(D.stroke),D.paths=pt(D.paths),D.pxAlign=v.pxAlign}if(j){let P=Rt(v,E);tt.splice(E,0,P[0]),Ge.splice(E,0,P[1]),he.values.push(null)}if(me){ie.splice(E,0,null);let P=null;Re?E==0&&(P=Or(v,E)):E>0&&(P=Or(v,E)),st.splice(E,0,P),Ut.splice(E,0,0),Cn.splice(E,0,0)}Mn("addSeries",E)}function sl(v,E){E=E??x.length,v=s==1?pu(v,E,fd,gd):pu(v,E,{},md),x.splice(E,0,v),Vs(x[E],E)}i.addSeries=sl;function ba(v){if(x.splice(v,1),j){he.values.splice(v,1),Ge.splice(v,1);let E=tt.splice(v,1)[0];cn(null,E.firstChild),E.remove()}me&&(ie.splice(v,1),st.splice(v,1)[0].remove(),Ut.splice(v,1),Cn.splice(v,1)),Mn("delSeries",v)}i.delSeries=ba;const vi=[!1,!1,!1,!1];function Oi(v,E){if(v._show=v.show,v.show){let P=v.side%2,D=S[v.scale];D==null&&(v.scale=P?x[1].scale:w,D=S[v.scale]);let H=D.time;v.size=pt(v.size),v.space=pt(v.space),v.rotate=pt(v.rotate),ds(v.incrs)&&v.incrs.forEach(oe=>{!Ss.has(oe)&&Ss.set(oe,jp(oe))}),v.incrs=pt(v.incrs||(D.distr==2?EE:H?m==1?bE:RE:Cs)),v.splits=pt(v.splits||(H&&D.distr==1?ce:D.distr==3?uu:D.distr==4?qE:XE)),v.stroke=pt(v.stroke),v.grid.stroke=pt(v.grid.stroke),v.ticks.stroke=pt(v.ticks.stroke),v.border.stroke=pt(v.border.stroke);let $=v.values;v.values=ds($)&&!ds($[0])?pt($):H?ds($)?od(Z,ad($,B)):nd($)?LE(Z,$):$||K:$||WE,v.filter=pt(v.filter||(D.distr>=3&&D.log==10?KE:D.distr==3&&D.log==2?ZE:Jp)),v.font=yd(v.font),v.labelFont=yd(v.labelFont),v._size=v.size(i,null,E,0),v._space=v._rotate=v._incrs=v._found=v._splits=v._values=null,v._size>0&&(vi[E]=!0,v._el=jn(Ny,f))}}function Bi(v,E,P,D){let[H,$,oe,de]=P,Se=E%2,Ne=0;return Se==0&&(de||$)&&(Ne=E==0&&!H||E==2&&!oe?fn(ud.size/3):0),Se==1&&(H||oe)&&(Ne=E==1&&!$||E==3&&!de?fn(dd.size/2):0),Ne}const Br=i.padding=(n.padding||[Bi,Bi,Bi,Bi]).map(v=>pt(vt(v,Bi))),ri=i._padding=Br.map((v,E)=>v(i,E,vi,0));let qt,Zt=null,Jt=null;const xi=s==1?x[0].idxs:null;let kn=null,es=!1;function zr(v,E){if(e=v??[],i.data=i._data=e,s==2){qt=0;for(let P=1;P<x.length;P++)qt+=e[P][0].length}else{e.length==0&&(i.data=i._data=e=[[]]),kn=e[0],qt=kn.length;let P=e;if(G==2){P=e.slice();let D=P[0]=Array(qt);for(let H=0;H<qt;H++)D[H]=H}i._data=e=P}if(at(!0),Mn("setData"),G==2&&(xe=!0),E!==!1){let P=L;P.auto(i,es)?kr():is(w,P.min,P.max),ee=ee||fe.left>=0,pe=!0,bn()}}i.setData=zr;function kr(){es=!0;let v,E;s==1&&(qt>0?(Zt=xi[0]=0,Jt=xi[1]=qt-1,v=e[0][Zt],E=e[0][Jt],G==2?(v=Zt,E=Jt):v==E&&(G==3?[v,E]=Jo(v,v,L.log,!1):G==4?[v,E]=ku(v,v,L.log,!1):L.time?E=v+fn(86400/m):[v,E]=Ho(v,E,Gu,!0))):(Zt=xi[0]=v=null,Jt=xi[1]=E=null)),is(w,v,E)}let Ws,ts,Xs,T,O,J,q,Y,be,Pe;function we(v,E,P,D,H,$){v??=zh,P??=Vu,D??="butt",H??=zh,$??="round",v!=Ws&&(d.strokeStyle=Ws=v),H!=ts&&(d.fillStyle=ts=H),E!=Xs&&(d.lineWidth=Xs=E),$!=O&&(d.lineJoin=O=$),D!=J&&(d.lineCap=J=D),P!=T&&d.setLineDash(T=P)}function Le(v,E,P,D){E!=ts&&(d.fillStyle=ts=E),v!=q&&(d.font=q=v),P!=Y&&(d.textAlign=Y=P),D!=be&&(d.textBaseline=be=D)}function ze(v,E,P,D,H=0){if(D.length>0&&v.auto(i,es)&&(E==null||E.min==null)){let $=vt(Zt,0),oe=vt(Jt,D.length-1),de=P.min==null?Ky(D,$,oe,H,v.distr==3):[P.min,P.max];v.min=mi(v.min,P.min=de[0]),v.max=Un(v.max,P.max=de[1])}}const Qe={min:null,max:null};function ct(){for(let D in S){let H=S[D];V[D]==null&&(H.min==null||V[w]!=null&&H.auto(i,es))&&(V[D]=Qe)}for(let D in S){let H=S[D];V[D]==null&&H.from!=null&&V[H.from]!=null&&(V[D]=Qe)}V[w]!=null&&at(!0);let v={};for(let D in V){let H=V[D];if(H!=null){let $=v[D]=Cr(S[D],sE);if(H.min!=null)an($,H);else if(D!=w||s==2)if(qt==0&&$.from==null){let oe=$.range(i,null,null,D);$.min=oe[0],$.max=oe[1]}else $.min=Lt,$.max=-Lt}}if(qt>0){x.forEach((D,H)=>{if(s==1){let $=D.scale,oe=V[$];if(oe==null)return;let de=v[$];if(H==0){let Se=de.range(i,de.min,de.max,$);de.min=Se[0],de.max=Se[1],Zt=hi(de.min,e[0]),Jt=hi(de.max,e[0]),Jt-Zt>1&&(e[0][Zt]<de.min&&Zt++,e[0][Jt]>de.max&&Jt--),D.min=kn[Zt],D.max=kn[Jt]}else D.show&&D.auto&&ze(de,oe,D,e[H],D.sorted);D.idxs[0]=Zt,D.idxs[1]=Jt}else if(H>0&&D.show&&D.auto){let[$,oe]=D.facets,de=$.scale,Se=oe.scale,[Ne,Ie]=e[H],Fe=v[de],et=v[Se];Fe!=null&&ze(Fe,V[de],$,Ne,$.sorted),et!=null&&ze(et,V[Se],oe,Ie,oe.sorted),D.min=oe.min,D.max=oe.max}});for(let D in v){let H=v[D],$=V[D];if(H.from==null&&($==null||$.min==null)){let oe=H.range(i,H.min==Lt?null:H.min,H.max==-Lt?null:H.max,D);H.min=oe[0],H.max=oe[1]}}}for(let D in v){let H=v[D];if(H.from!=null){let $=v[H.from];if($.min==null)H.min=H.max=null;else{let oe=H.range(i,$.min,$.max,D);H.min=oe[0],H.max=oe[1]}}}let E={},P=!1;for(let D in v){let H=v[D],$=S[D];if($.min!=H.min||$.max!=H.max){$.min=H.min,$.max=H.max;let oe=$.distr;$._min=oe==3?Qi($.min):oe==4?jl($.min,$.asinh):oe==100?$.fwd($.min):$.min,$._max=oe==3?Qi($.max):oe==4?jl($.max,$.asinh):oe==100?$.fwd($.max):$.max,E[D]=P=!0}}if(P){x.forEach((D,H)=>{s==2?H>0&&E.y&&(D._paths=null):E[D.scale]&&(D._paths=null)});for(let D in E)xe=!0,Mn("setScale",D);me&&fe.left>=0&&(ee=pe=!0)}for(let D in V)V[D]=null}function Be(v){let E=cu(Zt-1,0,qt-1),P=cu(Jt+1,0,qt-1);for(;v[E]==null&&E>0;)E--;for(;v[P]==null&&P<qt-1;)P++;return[E,P]}function ut(){if(qt>0){let v=x.some(E=>E._focus)&&Pe!=Oe.alpha;v&&(d.globalAlpha=Pe=Oe.alpha),x.forEach((E,P)=>{if(P>0&&E.show&&(Ht(P,!1),Ht(P,!0),E._paths==null)){let D=Pe;Pe!=E.alpha&&(d.globalAlpha=Pe=E.alpha);let H=s==2?[0,e[P][0].length-1]:Be(e[P]);E._paths=E.paths(i,P,H[0],H[1]),Pe!=D&&(d.globalAlpha=Pe=D)}}),x.forEach((E,P)=>{if(P>0&&E.show){let D=Pe;Pe!=E.alpha&&(d.globalAlpha=Pe=E.alpha),E._paths!=null&&Tt(P,!1);{let H=E._paths!=null?E._paths.gaps:null,$=E.points.show(i,P,Zt,Jt,H),oe=E.points.filter(i,P,$,H);($||oe)&&(E.points._paths=E.points.paths(i,P,Zt,Jt,oe),Tt(P,!0))}Pe!=D&&(d.globalAlpha=Pe=D),Mn("drawSeries",P)}}),v&&(d.globalAlpha=Pe=1)}}function Ht(v,E){let P=E?x[v].points:x[v];P._stroke=P.stroke(i,v),P._fill=P.fill(i,v)}function Tt(v,E){let P=E?x[v].points:x[v],{stroke:D,fill:H,clip:$,flags:oe,_stroke:de=P._stroke,_fill:Se=P._fill,_width:Ne=P.width}=P._paths;Ne=Dt(Ne*St,3);let Ie=null,Fe=Ne%2/2;E&&Se==null&&(Se=Ne>0?"#fff":de);let et=P.pxAlign==1&&Fe>0;if(et&&d.translate(Fe,Fe),!E){let xt=C-Ne/2,_t=y-Ne/2,ft=X+Ne,$e=ue+Ne;Ie=new Path2D,Ie.rect(xt,_t,ft,$e)}E?Ue(de,Ne,P.dash,P.cap,Se,D,H,oe,$):bt(v,de,Ne,P.dash,P.cap,Se,D,H,oe,Ie,$),et&&d.translate(-Fe,-Fe)}function bt(v,E,P,D,H,$,oe,de,Se,Ne,Ie){let Fe=!1;Se!=0&&R.forEach((et,xt)=>{if(et.series[0]==v){let _t=x[et.series[1]],ft=e[et.series[1]],$e=(_t._paths||ua).band;ds($e)&&($e=et.dir==1?$e[0]:$e[1]);let Xe,Bt=null;_t.show&&$e&&Jy(ft,Zt,Jt)?(Bt=et.fill(i,xt)||$,Xe=_t._paths.clip):$e=null,Ue(E,P,D,H,Bt,oe,de,Se,Ne,Ie,Xe,$e),Fe=!0}}),Fe||Ue(E,P,D,H,$,oe,de,Se,Ne,Ie)}const un=Pr|hu;function Ue(v,E,P,D,H,$,oe,de,Se,Ne,Ie,Fe){we(v,E,P,D,H),(Se||Ne||Fe)&&(d.save(),Se&&d.clip(Se),Ne&&d.clip(Ne)),Fe?(de&un)==un?(d.clip(Fe),Ie&&d.clip(Ie),dt(H,oe),en(v,$,E)):de&hu?(dt(H,oe),d.clip(Fe),en(v,$,E)):de&Pr&&(d.save(),d.clip(Fe),Ie&&d.clip(Ie),dt(H,oe),d.restore(),en(v,$,E)):(dt(H,oe),en(v,$,E)),(Se||Ne||Fe)&&d.restore()}function en(v,E,P){P>0&&(E instanceof Map?E.forEach((D,H)=>{d.strokeStyle=Ws=H,d.stroke(D)}):E!=null&&v&&d.stroke(E))}function dt(v,E){E instanceof Map?E.forEach((P,D)=>{d.fillStyle=ts=D,d.fill(P)}):E!=null&&v&&d.fill(E)}function zi(v,E,P,D){let H=A[v],$;if(D<=0)$=[0,0];else{let oe=H._space=H.space(i,v,E,P,D),de=H._incrs=H.incrs(i,v,E,P,D,oe);$=vT(E,P,de,D,oe)}return H._found=$}function tn(v,E,P,D,H,$,oe,de,Se,Ne){let Ie=oe%2/2;M==1&&d.translate(Ie,Ie),we(de,oe,Se,Ne,de),d.beginPath();let Fe,et,xt,_t,ft=H+(D==0||D==3?-$:$);P==0?(et=H,_t=ft):(Fe=H,xt=ft);for(let $e=0;$e<v.length;$e++)E[$e]!=null&&(P==0?Fe=xt=v[$e]:et=_t=v[$e],d.moveTo(Fe,et),d.lineTo(xt,_t));d.stroke(),M==1&&d.translate(-Ie,-Ie)}function qs(v){let E=!0;return A.forEach((P,D)=>{if(!P.show)return;let H=S[P.scale];if(H.min==null){P._show&&(E=!1,P._show=!1,at(!1));return}else P._show||(E=!1,P._show=!0,at(!1));let $=P.side,oe=$%2,{min:de,max:Se}=H,[Ne,Ie]=zi(D,de,Se,oe==0?F:Ce);if(Ie==0)return;let Fe=H.distr==2,et=P._splits=P.splits(i,D,de,Se,Ne,Ie,Fe),xt=H.distr==2?et.map(Xe=>kn[Xe]):et,_t=H.distr==2?kn[et[1]]-kn[et[0]]:Ne,ft=P._values=P.values(i,P.filter(i,xt,D,Ie,_t),D,Ie,_t);P._rotate=$==2?P.rotate(i,ft,D,Ie):0;let $e=P._size;P._size=ti(P.size(i,ft,D,v)),$e!=null&&P._size!=$e&&(E=!1)}),E}function Si(v){let E=!0;return Br.forEach((P,D)=>{let H=P(i,D,vi,v);H!=ri[D]&&(E=!1),ri[D]=H}),E}function ki(){for(let v=0;v<A.length;v++){let E=A[v];if(!E.show||!E._show)continue;let P=E.side,D=P%2,H,$,oe=E.stroke(i,v),de=P==0||P==3?-1:1,[Se,Ne]=E._found;if(E.label!=null){let Dn=E.labelGap*de,Vn=fn((E._lpos+Dn)*St);Le(E.labelFont[0],oe,"center",P==2?Jr:Bh),d.save(),D==1?(H=$=0,d.translate(Vn,fn(y+ue/2)),d.rotate((P==3?-Eo:Eo)/2)):(H=fn(C+X/2),$=Vn);let Es=Kp(E.label)?E.label(i,v,Se,Ne):E.label;d.fillText(Es,H,$),d.restore()}if(Ne==0)continue;let Ie=S[E.scale],Fe=D==0?X:ue,et=D==0?C:y,xt=E._splits,_t=Ie.distr==2?xt.map(Dn=>kn[Dn]):xt,ft=Ie.distr==2?kn[xt[1]]-kn[xt[0]]:Se,$e=E.ticks,Xe=E.border,Bt=$e.show?$e.size:0,$t=fn(Bt*St),yn=fn((E.alignTo==2?E._size-Bt-E.gap:E.gap)*St),Ct=E._rotate*-Eo/180,Kt=p(E._pos*St),Gn=($t+yn)*de,Ln=Kt+Gn;$=D==0?Ln:0,H=D==1?Ln:0;let Zn=E.font[0],ai=E.align==1?hr:E.align==2?Zl:Ct>0?hr:Ct<0?Zl:D==0?"center":P==3?Zl:hr,Ei=Ct||D==1?"middle":P==2?Jr:Bh;Le(Zn,oe,ai,Ei);let Hn=E.font[1]*E.lineGap,Jn=xt.map(Dn=>p(o(Dn,Ie,Fe,et))),oi=E._values;for(let Dn=0;Dn<oi.length;Dn++){let Vn=oi[Dn];if(Vn!=null){D==0?H=Jn[Dn]:$=Jn[Dn],Vn=""+Vn;let Es=Vn.indexOf(`
`)==-1?[Vn]:Vn.split(/\n/gm);for(let Nn=0;Nn<Es.length;Nn++){let vf=Es[Nn];Ct?(d.save(),d.translate(H,$+Nn*Hn),d.rotate(Ct),d.fillText(vf,0,0),d.restore()):d.fillText(vf,H,$+Nn*Hn)}}}$e.show&&tn(Jn,$e.filter(i,_t,v,Ne,ft),D,P,Kt,$t,Dt($e.width*St,3),$e.stroke(i,v),$e.dash,$e.cap);let Ti=E.grid;Ti.show&&tn(Jn,Ti.filter(i,_t,v,Ne,ft),D,D==0?2:1,D==0?y:C,D==0?ue:X,Dt(Ti.width*St,3),Ti.stroke(i,v),Ti.dash,Ti.cap),Xe.show&&tn([Kt],[1],D==0?1:0,D==0?1:2,D==1?y:C,D==1?ue:X,Dt(Xe.width*St,3),Xe.stroke(i,v),Xe.dash,Xe.cap)}Mn("drawAxes")}function at(v){x.forEach((E,P)=>{P>0&&(E._paths=null,v&&(s==1?(E.min=null,E.max=null):E.facets.forEach(D=>{D.min=null,D.max=null})))})}let Yt=!1,Pn=!1,wt=[];function nn(){Pn=!1;for(let v=0;v<wt.length;v++)Mn(...wt[v]);wt.length=0}function bn(){Yt||(fE(ju),Yt=!0)}function wa(v,E=!1){Yt=!0,Pn=E,v(i),ju(),E&&wt.length>0&&queueMicrotask(nn)}i.batch=wa;function ju(){if(ae&&(ct(),ae=!1),xe&&(Te(),xe=!1),_e){if(zt(h,hr,Ye),zt(h,Jr,nt),zt(h,na,F),zt(h,ia,Ce),zt(g,hr,Ye),zt(g,Jr,nt),zt(g,na,F),zt(g,ia,Ce),zt(f,na,Xt),zt(f,ia,jt),u.width=fn(Xt*St),u.height=fn(jt*St),A.forEach(({_el:v,_show:E,_size:P,_pos:D,side:H})=>{if(v!=null)if(E){let $=H===3||H===0?P:0,oe=H%2==1;zt(v,oe?"left":"top",D-$),zt(v,oe?"width":"height",P),zt(v,oe?"top":"left",oe?nt:Ye),zt(v,oe?"height":"width",oe?Ce:F),ou(v,Ls)}else qn(v,Ls)}),Ws=ts=Xs=O=J=q=Y=be=T=null,Pe=1,Vr(!0),Ye!=Ee||nt!=Pt||F!=ke||Ce!=qe){at(!1);let v=F/ke,E=Ce/qe;if(me&&!ee&&fe.left>=0){fe.left*=v,fe.top*=E,Ys&&Ai(Ys,fn(fe.left),0,F,Ce),$s&&Ai($s,0,fn(fe.top),F,Ce);for(let P=0;P<st.length;P++){let D=st[P];D!=null&&(Ut[P]*=v,Cn[P]*=E,Ai(D,ti(Ut[P]),ti(Cn[P]),F,Ce))}}if(Ot.show&&!ne&&Ot.left>=0&&Ot.width>0){Ot.left*=v,Ot.width*=v,Ot.top*=E,Ot.height*=E;for(let P in ul)zt(Js,P,Ot[P])}Ee=Ye,Pt=nt,ke=F,qe=Ce}Mn("setSize"),_e=!1}Xt>0&&jt>0&&(d.clearRect(0,0,u.width,u.height),Mn("drawClear"),b.forEach(v=>v()),Mn("draw")),Ot.show&&ne&&(Aa(Ot),ne=!1),me&&ee&&(ys(null,!0,!1),ee=!1),he.show&&he.live&&pe&&(ll(),pe=!1),l||(l=!0,i.status=1,Mn("ready")),es=!1,Yt=!1}i.redraw=(v,E)=>{xe=E||!1,v!==!1?is(w,L.min,L.max):bn()};function rl(v,E){let P=S[v];if(P.from==null){if(qt==0){let D=P.range(i,E.min,E.max,v);E.min=D[0],E.max=D[1]}if(E.min>E.max){let D=E.min;E.min=E.max,E.max=D}if(qt>1&&E.min!=null&&E.max!=null&&E.max-E.min<1e-16)return;v==w&&P.distr==2&&qt>0&&(E.min=hi(E.min,e[0]),E.max=hi(E.max,e[0]),E.min==E.max&&E.max++),V[v]=E,ae=!0,bn()}}i.setScale=rl;let al,ol,Ys,$s,ef,tf,Ks,Zs,nf,sf,Ft,Gt,ns=!1;const Tn=fe.drag;let xn=Tn.x,Sn=Tn.y;me&&(fe.x&&(al=jn(Uy,g)),fe.y&&(ol=jn(Fy,g)),L.ori==0?(Ys=al,$s=ol):(Ys=ol,$s=al),Ft=fe.left,Gt=fe.top);const Ot=i.select=an({show:!0,over:!0,left:0,width:0,top:0,height:0},n.select),Js=Ot.show?jn(Iy,Ot.over?g:h):null;function Aa(v,E){if(Ot.show){for(let P in v)Ot[P]=v[P],P in ul&&zt(Js,P,v[P]);E!==!1&&Mn("setSelect")}}i.setSelect=Aa;function Lm(v){if(x[v].show)j&&ou(tt[v],Ls);else if(j&&qn(tt[v],Ls),me){let P=Re?st[0]:st[v];P!=null&&Ai(P,-10,-10,F,Ce)}}function is(v,E,P){rl(v,{min:E,max:P})}function Mi(v,E,P,D){E.focus!=null&&Fm(v),E.show!=null&&x.forEach((H,$)=>{$>0&&(v==$||v==null)&&(H.show=E.show,Lm($),s==2?(is(H.facets[0].scale,null,null),is(H.facets[1].scale,null,null)):is(H.scale,null,null),bn())}),P!==!1&&Mn("setSeries",v,E),D&&Wr("setSeries",i,v,E)}i.setSeries=Mi;function Dm(v,E){an(R[v],E)}function Nm(v,E){v.fill=pt(v.fill||null),v.dir=vt(v.dir,-1),E=E??R.length,R.splice(E,0,v)}function Im(v){v==null?R.length=0:R.splice(v,1)}i.addBand=Nm,i.setBand=Dm,i.delBand=Im;function Um(v,E){x[v].alpha=E,me&&st[v]!=null&&(st[v].style.opacity=E),j&&tt[v]&&(tt[v].style.opacity=E)}let Gi,ss,Ms;const Qs={focus:!0};function Fm(v){if(v!=Ms){let E=v==null,P=Oe.alpha!=1;x.forEach((D,H)=>{if(s==1||H>0){let $=E||H==0||H==v;D._focus=E?null:$,P&&Um(H,$?1:Oe.alpha)}}),Ms=v,P&&bn()}}j&&Ze&&gt(Hh,Ae,v=>{fe._lock||(Ke(v),Ms!=null&&Mi(null,Qs,!0,sn.setSeries))});function yi(v,E,P){let D=S[E];P&&(v=v/St-(D.ori==1?nt:Ye));let H=F;D.ori==1&&(H=Ce,v=H-v),D.dir==-1&&(v=H-v);let $=D._min,oe=D._max,de=v/H,Se=$+(oe-$)*de,Ne=D.distr;return Ne==3?Ar(10,Se):Ne==4?jy(Se,D.asinh):Ne==100?D.bwd(Se):Se}function Om(v,E){let P=yi(v,w,E);return hi(P,e[0],Zt,Jt)}i.valToIdx=v=>hi(v,e[0]),i.posToIdx=Om,i.posToVal=yi,i.valToPos=(v,E,P)=>S[E].ori==0?r(v,S[E],P?X:F,P?C:0):a(v,S[E],P?ue:Ce,P?y:0),i.setCursor=(v,E,P)=>{Ft=v.left,Gt=v.top,ys(null,E,P)};function rf(v,E){zt(Js,hr,Ot.left=v),zt(Js,na,Ot.width=E)}function af(v,E){zt(Js,Jr,Ot.top=v),zt(Js,ia,Ot.height=E)}let Gr=L.ori==0?rf:af,Hr=L.ori==1?rf:af;function Bm(){if(j&&he.live)for(let v=s==2?1:0;v<x.length;v++){if(v==0&&rt)continue;let E=he.values[v],P=0;for(let D in E)Ge[v][P++].firstChild.nodeValue=E[D]}}function ll(v,E){if(v!=null&&(v.idxs?v.idxs.forEach((P,D)=>{ie[D]=P}):iE(v.idx)||ie.fill(v.idx),he.idx=ie[0]),j&&he.live){for(let P=0;P<x.length;P++)(P>0||s==1&&!rt)&&zm(P,ie[P]);Bm()}pe=!1,E!==!1&&Mn("setLegend")}i.setLegend=ll;function zm(v,E){let P=x[v],D=v==0&&G==2?kn:e[v],H;rt?H=P.values(i,v,E)??je:(H=P.value(i,E==null?null:D[E],v,E),H=H==null?je:{_:H}),he.values[v]=H}function ys(v,E,P){nf=Ft,sf=Gt,[Ft,Gt]=fe.move(i,Ft,Gt),fe.left=Ft,fe.top=Gt,me&&(Ys&&Ai(Ys,fn(Ft),0,F,Ce),$s&&Ai($s,0,fn(Gt),F,Ce));let D,H=Zt>Jt;Gi=Lt,ss=null;let $=L.ori==0?F:Ce,oe=L.ori==1?F:Ce;if(Ft<0||qt==0||H){D=fe.idx=null;for(let de=0;de<x.length;de++){let Se=st[de];Se!=null&&Ai(Se,-10,-10,F,Ce)}Ze&&Mi(null,Qs,!0,v==null&&sn.setSeries),he.live&&(ie.fill(D),pe=!0)}else{let de,Se,Ne;s==1&&(de=L.ori==0?Ft:Gt,Se=yi(de,w),D=fe.idx=hi(Se,e[0],Zt,Jt),Ne=k(e[0][D],L,$,0));let Ie=-10,Fe=-10,et=0,xt=0,_t=!0,ft="",$e="";for(let Xe=s==2?1:0;Xe<x.length;Xe++){let Bt=x[Xe],$t=ie[Xe],yn=$t==null?null:s==1?e[Xe][$t]:e[Xe][1][$t],Ct=fe.dataIdx(i,Xe,D,Se),Kt=Ct==null?null:s==1?e[Xe][Ct]:e[Xe][1][Ct];if(pe=pe||Kt!=yn||Ct!=$t,ie[Xe]=Ct,Xe>0&&Bt.show){let Gn=Ct==null?-10:Ct==D?Ne:k(s==1?e[0][Ct]:e[Xe][0][Ct],L,$,0),Ln=Kt==null?-10:I(Kt,s==1?S[Bt.scale]:S[Bt.facets[1].scale],oe,0);if(Ze&&Kt!=null){let Zn=L.ori==1?Ft:Gt,ai=hn(Oe.dist(i,Xe,Ct,Ln,Zn));if(ai<Gi){let Ei=Oe.bias;if(Ei!=0){let Hn=yi(Zn,Bt.scale),Jn=Kt>=0?1:-1,oi=Hn>=0?1:-1;oi==Jn&&(oi==1?Ei==1?Kt>=Hn:Kt<=Hn:Ei==1?Kt<=Hn:Kt>=Hn)&&(Gi=ai,ss=Xe)}else Gi=ai,ss=Xe}}if(pe||Re){let Zn,ai;L.ori==0?(Zn=Gn,ai=Ln):(Zn=Ln,ai=Gn);let Ei,Hn,Jn,oi,Ti,Dn,Vn=!0,Es=le.bbox;if(Es!=null){Vn=!1;let Nn=Es(i,Xe);Jn=Nn.left,oi=Nn.top,Ei=Nn.width,Hn=Nn.height}else Jn=Zn,oi=ai,Ei=Hn=le.size(i,Xe);if(Dn=le.fill(i,Xe),Ti=le.stroke(i,Xe),Re)Xe==ss&&Gi<=Oe.prox&&(Ie=Jn,Fe=oi,et=Ei,xt=Hn,_t=Vn,ft=Dn,$e=Ti);else{let Nn=st[Xe];Nn!=null&&(Ut[Xe]=Jn,Cn[Xe]=oi,Kh(Nn,Ei,Hn,Vn),Yh(Nn,Dn,Ti),Ai(Nn,ti(Jn),ti(oi),F,Ce))}}}}if(Re){let Xe=Oe.prox,Bt=Ms==null?Gi<=Xe:Gi>Xe||ss!=Ms;if(pe||Bt){let $t=st[0];$t!=null&&(Ut[0]=Ie,Cn[0]=Fe,Kh($t,et,xt,_t),Yh($t,ft,$e),Ai($t,ti(Ie),ti(Fe),F,Ce))}}}if(Ot.show&&ns)if(v!=null){let[de,Se]=sn.scales,[Ne,Ie]=sn.match,[Fe,et]=v.cursor.sync.scales,xt=v.cursor.drag;if(xn=xt._x,Sn=xt._y,xn||Sn){let{left:_t,top:ft,width:$e,height:Xe}=v.select,Bt=v.scales[Fe].ori,$t=v.posToVal,yn,Ct,Kt,Gn,Ln,Zn=de!=null&&Ne(de,Fe),ai=Se!=null&&Ie(Se,et);Zn&&xn?(Bt==0?(yn=_t,Ct=$e):(yn=ft,Ct=Xe),Kt=S[de],Gn=k($t(yn,Fe),Kt,$,0),Ln=k($t(yn+Ct,Fe),Kt,$,0),Gr(mi(Gn,Ln),hn(Ln-Gn))):Gr(0,$),ai&&Sn?(Bt==1?(yn=_t,Ct=$e):(yn=ft,Ct=Xe),Kt=S[Se],Gn=I($t(yn,et),Kt,oe,0),Ln=I($t(yn+Ct,et),Kt,oe,0),Hr(mi(Gn,Ln),hn(Ln-Gn))):Hr(0,oe)}else fl()}else{let de=hn(nf-ef),Se=hn(sf-tf);if(L.ori==1){let et=de;de=Se,Se=et}xn=Tn.x&&de>=Tn.dist,Sn=Tn.y&&Se>=Tn.dist;let Ne=Tn.uni;Ne!=null?xn&&Sn&&(xn=de>=Ne,Sn=Se>=Ne,!xn&&!Sn&&(Se>de?Sn=!0:xn=!0)):Tn.x&&Tn.y&&(xn||Sn)&&(xn=Sn=!0);let Ie,Fe;xn&&(L.ori==0?(Ie=Ks,Fe=Ft):(Ie=Zs,Fe=Gt),Gr(mi(Ie,Fe),hn(Fe-Ie)),Sn||Hr(0,oe)),Sn&&(L.ori==1?(Ie=Ks,Fe=Ft):(Ie=Zs,Fe=Gt),Hr(mi(Ie,Fe),hn(Fe-Ie)),xn||Gr(0,$)),!xn&&!Sn&&(Gr(0,0),Hr(0,0))}if(Tn._x=xn,Tn._y=Sn,v==null){if(P){if(_f!=null){let[de,Se]=sn.scales;sn.values[0]=de!=null?yi(L.ori==0?Ft:Gt,de):null,sn.values[1]=Se!=null?yi(L.ori==1?Ft:Gt,Se):null}Wr(Jl,i,Ft,Gt,F,Ce,D)}if(Ze){let de=P&&sn.setSeries,Se=Oe.prox;Ms==null?Gi<=Se&&Mi(ss,Qs,!0,de):Gi>Se?Mi(null,Qs,!0,de):ss!=Ms&&Mi(ss,Qs,!0,de)}}pe&&(he.idx=D,ll()),E!==!1&&Mn("setCursor")}let rs=null;Object.defineProperty(i,"rect",{get(){return rs==null&&Vr(!1),rs}});function Vr(v=!1){v?rs=null:(rs=g.getBoundingClientRect(),Mn("syncRect",rs))}function of(v,E,P,D,H,$,oe){fe._lock||ns&&v!=null&&v.movementX==0&&v.movementY==0||(cl(v,E,P,D,H,$,oe,!1,v!=null),v!=null?ys(null,!0,!0):ys(E,!0,!1))}function cl(v,E,P,D,H,$,oe,de,Se){if(rs==null&&Vr(!1),Ke(v),v!=null)P=v.clientX-rs.left,D=v.clientY-rs.top;else{if(P<0||D<0){Ft=-10,Gt=-10;return}let[Ne,Ie]=sn.scales,Fe=E.cursor.sync,[et,xt]=Fe.values,[_t,ft]=Fe.scales,[$e,Xe]=sn.match,Bt=E.axes[0].side%2==1,$t=L.ori==0?F:Ce,yn=L.ori==1?F:Ce,Ct=Bt?$:H,Kt=Bt?H:$,Gn=Bt?D:P,Ln=Bt?P:D;if(_t!=null?P=$e(Ne,_t)?o(et,S[Ne],$t,0):-10:P=$t*(Gn/Ct),ft!=null?D=Xe(Ie,ft)?o(xt,S[Ie],yn,0):-10:D=yn*(Ln/Kt),L.ori==1){let Zn=P;P=D,D=Zn}}Se&&(E==null||E.cursor.event.type==Jl)&&((P<=1||P>=F-1)&&(P=Rs(P,F)),(D<=1||D>=Ce-1)&&(D=Rs(D,Ce))),de?(ef=P,tf=D,[Ks,Zs]=fe.move(i,P,D)):(Ft=P,Gt=D)}const ul={width:0,height:0,left:0,top:0};function fl(){Aa(ul,!1)}let lf,cf,uf,ff;function hf(v,E,P,D,H,$,oe){ns=!0,xn=Sn=Tn._x=Tn._y=!1,cl(v,E,P,D,H,$,oe,!0,!1),v!=null&&(gt(Ql,ru,df,!1),Wr(kh,i,Ks,Zs,F,Ce,null));let{left:de,top:Se,width:Ne,height:Ie}=Ot;lf=de,cf=Se,uf=Ne,ff=Ie}function df(v,E,P,D,H,$,oe){ns=Tn._x=Tn._y=!1,cl(v,E,P,D,H,$,oe,!1,!0);let{left:de,top:Se,width:Ne,height:Ie}=Ot,Fe=Ne>0||Ie>0,et=lf!=de||cf!=Se||uf!=Ne||ff!=Ie;if(Fe&&et&&Aa(Ot),Tn.setScale&&Fe&&et){let xt=de,_t=Ne,ft=Se,$e=Ie;if(L.ori==1&&(xt=Se,_t=Ie,ft=de,$e=Ne),xn&&is(w,yi(xt,w),yi(xt+_t,w)),Sn)for(let Xe in S){let Bt=S[Xe];Xe!=w&&Bt.from==null&&Bt.min!=Lt&&is(Xe,yi(ft+$e,Xe),yi(ft,Xe))}fl()}else fe.lock&&(fe._lock=!fe._lock,ys(E,!0,v!=null));v!=null&&(cn(Ql,ru),Wr(Ql,i,Ft,Gt,F,Ce,null))}function km(v,E,P,D,H,$,oe){if(fe._lock)return;Ke(v);let de=ns;if(ns){let Se=!0,Ne=!0,Ie=10,Fe,et;L.ori==0?(Fe=xn,et=Sn):(Fe=Sn,et=xn),Fe&&et&&(Se=Ft<=Ie||Ft>=F-Ie,Ne=Gt<=Ie||Gt>=Ce-Ie),Fe&&Se&&(Ft=Ft<Ks?0:F),et&&Ne&&(Gt=Gt<Zs?0:Ce),ys(null,!0,!0),ns=!1}Ft=-10,Gt=-10,ie.fill(null),ys(null,!0,!0),de&&(ns=de)}function pf(v,E,P,D,H,$,oe){fe._lock||(Ke(v),kr(),fl(),v!=null&&Wr(Vh,i,Ft,Gt,F,Ce,null))}function mf(){A.forEach(xT),U(i.width,i.height,!0)}Is(Go,Sr,mf);const js={};js.mousedown=hf,js.mousemove=of,js.mouseup=df,js.dblclick=pf,js.setSeries=(v,E,P,D)=>{let H=sn.match[2];P=H(i,E,P),P!=-1&&Mi(P,D,!0,!1)},me&&(gt(kh,g,hf),gt(Jl,g,of),gt(Gh,g,v=>{Ke(v),Vr(!1)}),gt(Hh,g,km),gt(Vh,g,pf),du.add(i),i.syncRect=Vr);const Ra=i.hooks=n.hooks||{};function Mn(v,E,P){Pn?wt.push([v,E,P]):v in Ra&&Ra[v].forEach(D=>{D.call(null,i,E,P)})}(n.plugins||[]).forEach(v=>{for(let E in v.hooks)Ra[E]=(Ra[E]||[]).concat(v.hooks[E])});const gf=(v,E,P)=>P,sn=an({key:null,setSeries:!1,filters:{pub:ed,sub:ed},scales:[w,x[1]?x[1].scale:null],match:[td,td,gf],values:[null,null]},fe.sync);sn.match.length==2&&sn.match.push(gf),fe.sync=sn;const _f=sn.key,hl=xm(_f);function Wr(v,E,P,D,H,$,oe){sn.filters.pub(v,E,P,D,H,$,oe)&&hl.pub(v,E,P,D,H,$,oe)}hl.sub(i);function Gm(v,E,P,D,H,$,oe){sn.filters.sub(v,E,P,D,H,$,oe)&&js[v](null,E,P,D,H,$,oe)}i.pub=Gm;function Hm(){hl.unsub(i),du.delete(i),vn.clear(),lu(Go,Sr,mf),c.remove(),Ae?.remove(),Mn("destroy")}i.destroy=Hm;function dl(){Mn("init",n,e),zr(e||n.data,!1),V[w]?rl(w,V[w]):kr(),ne=Ot.show&&(Ot.width>0||Ot.height>0),ee=pe=!0,U(n.width,n.height)}return x.forEach(Vs),A.forEach(Oi),t?t instanceof HTMLElement?(t.appendChild(c),dl()):t(i,dl):dl(),i}Rn.assign=an;Rn.fmtNum=Hu;Rn.rangeNum=Ho;Rn.rangeLog=Jo;Rn.rangeAsinh=ku;Rn.orient=Hs;Rn.pxRatio=St;Rn.join=uE;Rn.fmtDate=Wu,Rn.tzDate=ME;Rn.sync=xm;{Rn.addGap=iT,Rn.clipGaps=el;let n=Rn.paths={points:bm};n.linear=Am,n.stepped=aT,n.bars=oT,n.spline=cT}const _s=["#4cc3ff","#ffb454","#9ee06a","#ff7ac6","#b79cff","#ffe066"],ST=46;class MT{constructor(e,t,i){this.canvas=e,this.look=t,this.spots=i}canvas;look;spots;draw(e,t,i,s,r){const{canvas:a}=this;(a.width!==Math.round(i*r)||a.height!==Math.round(s*r))&&(a.width=Math.round(i*r),a.height=Math.round(s*r));const o=a.getContext("2d");if(!o)return;o.setTransform(r,0,0,r,0,0),o.clearRect(0,0,i,s),o.font="12px system-ui, sans-serif";const l=u=>{const d=e.project(u);return d&&[d[0]*i,d[1]*s]};t.wires&&this.wires(o,e,l),t.addresses&&this.addresses(o,e,l),t.names&&this.names(o,e,l);const c=t.led===void 0?void 0:l(t.led);c&&(o.strokeStyle="#e4e8ef",o.lineWidth=2,o.beginPath(),o.arc(c[0],c[1],13,0,2*Math.PI),o.stroke())}wires(e,t,i){e.lineWidth=1.5;let s;for(let r=0;r<t.spot.length;r++){const a=this.spots.line[t.spot[r]];if(a===void 0)continue;const o=i(r),l=s===void 0?void 0:i(s);s!==void 0&&this.spots.line[t.spot[s]]===a&&l&&o?(e.strokeStyle=_s[a%_s.length],e.globalAlpha=.75,e.beginPath(),e.moveTo(...l),e.lineTo(...o),e.stroke()):o&&(e.globalAlpha=1,e.fillStyle=_s[a%_s.length],e.fillRect(o[0]-4,o[1]-4,8,8),ic(e,this.look.lines[a]?.name??"",o[0]+8,o[1]-8)),s=r}e.globalAlpha=1}names(e,t,i){const s=new Map;for(let r=0;r<t.spot.length;r++){const a=this.spots.part[t.spot[r]],o=a===void 0?void 0:i(r);if(a===void 0||!o)continue;const[l,c,u]=s.get(a)??[0,0,0];s.set(a,[l+o[0],c+o[1],u+1])}e.textAlign="center";for(const[r,[a,o,l]]of s)e.fillStyle="#e4e8ef",ic(e,this.look.parts[r]??"",a/l,o/l-14);e.textAlign="start"}addresses(e,t,i){const s=[];e.fillStyle="#aab3c2";for(let r=0;r<t.spot.length;r++){const a=this.spots.address[t.spot[r]],o=a===void 0?void 0:i(r);a===void 0||!o||s.length>400||s.some(([l,c])=>Math.hypot(l-o[0],c-o[1])<ST)||(s.push(o),ic(e,String(a),o[0]+8,o[1]+16))}}}function ic(n,e,t,i){n.strokeStyle="#0c0e13",n.lineWidth=3,n.strokeText(e,t,i),n.fillText(e,t,i)}const Yi=1200,yT=240,ET=6,TT=900,bT=[.1,.25,.5,1,2,4];class wT{constructor(e){this.player=e,this.rows=Math.max(Math.min(e.first.look.spots.count,yT),1),this.canvas.width=Yi,this.canvas.height=this.rows,this.image=new ImageData(Yi,this.rows),this.end=e.end,e.onFrame(t=>t===e.first&&this.paint(t))}player;canvas=document.createElement("canvas");rows;image;end=1;first=Yi;last=0;show(){if(this.last<=this.first)return;const e=this.last-this.first;this.canvas.getContext("2d")?.putImageData(this.image,0,0,this.first,0,e,this.rows),[this.first,this.last]=[Yi,0]}paint(e){this.player.end!==this.end&&(this.image.data.fill(0),[this.first,this.last,this.end]=[0,Yi,this.player.end]);const t=e.module.seen(),{count:i}=e.look.spots,s=e.frame/e.look.rate,r=Math.floor(s/this.end*Yi),a=Math.min(Math.max(Math.ceil((s+1/e.look.rate)/this.end*Yi),r+1),Yi),{data:o}=this.image;for(let l=0;l<this.rows;l++){const c=3*Math.floor(l*i/this.rows);for(let u=r;u<a;u++){const d=4*(l*Yi+u);for(let f=0;f<3;f++)o[d+f]=AT[t[c+f]??0];o[d+3]=255}}this.first=Math.min(this.first,r),this.last=Math.max(this.last,a)}}const AT=Array.from({length:256},(n,e)=>{const t=Math.min(e/255*1.6,1);return Math.round(255*(t<=.0031308?t*12.92:1.055*t**(1/2.4)-.055))});function RT({player:n,strip:e}){const t=Ci(null),i=Ci(null),{time:s,end:r,first:a}=n;Ki(()=>{t.current?.prepend(e.canvas)},[e]),Ki(()=>e.show()),Ki(()=>i.current?CT(n,i.current):void 0,[n]);const o=l=>{if(l.buttons===0)return;const c=l.currentTarget.getBoundingClientRect();n.isPlaying=!1,n.goTo((l.clientX-c.left)/c.width*r),n.tell()};return se("section",{class:"time","aria-label":"Time",children:[se("div",{class:"buttons",children:[se("button",{class:"play",onClick:()=>n.play(!n.isPlaying),"aria-label":n.isPlaying?"Pause":"Play",children:n.isPlaying?"❚❚":"▶"}),se("button",{onClick:()=>n.stepBy(-1),"aria-label":"One frame back",children:"‹"}),se("button",{onClick:()=>n.stepBy(1),"aria-label":"One frame forward",children:"›"}),se("select",{"aria-label":"Speed",value:String(n.speed),onChange:l=>{n.speed=Number(l.currentTarget.value),n.tell()},children:bT.map(l=>se("option",{value:String(l),children:[l,"×"]},l))}),se("output",{class:"clock",children:Uh(s)}),se("span",{class:"faint tape",children:a.tape?a.tape.name:"no tape: set signals by hand"})]}),se("div",{class:"track",role:"slider",tabIndex:0,"aria-label":"Moment","aria-valuemin":0,"aria-valuemax":Number(r.toFixed(2)),"aria-valuenow":Number(s.toFixed(2)),"aria-valuetext":Uh(s),onPointerDown:l=>{l.currentTarget.setPointerCapture(l.pointerId),o(l)},onPointerMove:o,onKeyDown:l=>{const u={ArrowLeft:-1,ArrowRight:1,PageDown:-50,PageUp:50}[l.key];u!==void 0&&(l.preventDefault(),n.stepBy(u))},children:[se("div",{class:"strip",ref:t}),a.tape&&se("div",{class:"plot",ref:i,"aria-hidden":"true"}),se("i",{class:"now",style:{left:`${100*s/r}%`}})]})]})}function CT(n,e){const{look:t,tape:i}=n.first;if(!i)return;const s=t.signals.filter(f=>f.of===""&&["number","switch","choice"].includes(f.kind)&&i.has(f.parts[0])).slice(0,ET);if(s.length===0)return;const r=Math.min(i.frames,TT),a=Array.from({length:r},(f,h)=>Math.round(h*(i.frames-1)/Math.max(r-1,1))),o=s.map((f,h)=>a.map(g=>{const M=i.last(f.parts[0],g),p=M===void 0?null:(M-f.low)/(f.high-f.low||1);return p===null?null:(s.length-1-h+.08+.84*Math.min(Math.max(p,0),1))/s.length})),l=e.clientHeight||60,c=new Rn({width:e.clientWidth||600,height:l,padding:[0,0,0,0],legend:{show:!1},cursor:{show:!1},select:{show:!1,left:0,top:0,width:0,height:0},axes:[{show:!1},{show:!1}],scales:{x:{time:!1,range:()=>[0,i.frames-1]},y:{range:()=>[0,1]}},series:[{},...s.map((f,h)=>({stroke:_s[h%_s.length],width:1.25,points:{show:!1}}))]},[a,...o],e),u=document.createElement("div");u.className="traced",s.forEach((f,h)=>{const g=document.createElement("span");g.textContent=f.name,g.style.color=_s[h%_s.length],g.style.top=`${100*h/s.length}%`,u.append(g)}),e.append(u);const d=new ResizeObserver(()=>c.setSize({width:e.clientWidth,height:e.clientHeight||l}));return d.observe(e),()=>{d.disconnect(),c.destroy(),u.remove()}}const Ju=n=>`
precision highp float;
in vec2 offset;
in float core;
in vec3 light;
uniform float dim;
out vec4 shown;
void main() {${n}}`,Qu=n=>`
precision highp float;
in vec2 corner;
in vec3 place;
in vec3 facing;
in vec3 colour;
uniform mat4 viewMatrix, projectionMatrix;
uniform vec3 eye;
uniform vec2 size;
uniform float radius, scale, least, most;
out vec2 offset;
out float core;
out vec3 light;
void main() {
  vec4 seen = viewMatrix * vec4(place, 1.0);
  gl_Position = projectionMatrix * seen;
  core = clamp(radius * scale / max(-seen.z, 0.1), least, most);
  float reach = ${n};
  offset = corner * reach;
  gl_Position.xy += 2.0 * offset / size * gl_Position.w;
  float turned = dot(facing, facing) > 0.0 ? dot(facing, normalize(eye - place)) : 1.0;
  light = colour * mix(0.3, 1.0, smoothstep(-0.7, 0.0, turned));
}`,PT=Qu("core * 2.2 + 1.0"),LT=Ju(`
  float distance = length(offset);
  float disc = clamp(core + 0.5 - distance, 0.0, 1.0);
  float shine = disc + 0.12 * exp(-pow(distance / (1.3 * core), 2.0));
  float level = max(light.r, max(light.g, light.b));
  shown = vec4((4.0 * light + 0.07 * level * level) * shine * dim, 1.0);
`),DT=Qu("core * 24.0 + 1.0"),NT=Ju(`
  float wide = 7.0 * core;
  shown = vec4(light * dim * 0.0408 * exp(-0.5 * pow(length(offset) / wide, 2.0)), 1.0);
`),IT=Qu("core * 0.75 + 1.0"),UT=Ju(`
  float disc = clamp(core * 0.75 + 0.5 - length(offset), 0.0, 1.0);
  if (disc <= 0.0) discard;
  shown = vec4(vec3(0.0212, 0.0252, 0.0343), disc);
`),FT=`
precision highp float;
in vec3 position;
out vec2 at;
void main() {
  at = position.xy * 0.5 + 0.5;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}`,OT=`
precision highp float;
in vec2 at;
uniform sampler2D sharp, soft;
out vec4 shown;
void main() {
  vec3 light = texture(sharp, at).rgb + texture(soft, at).rgb;
  if (max(light.r, max(light.g, light.b)) < 0.0001) {
    shown = vec4(0.047, 0.0549, 0.0745, 1.0); // the night, where nothing is
    return;
  }
  light += vec3(0.0037, 0.0044, 0.0065);
  vec3 over = max(light - 0.6, 0.0);
  light = min(light, 0.6) + 0.4 * over / (over + 0.4);
  vec3 low = light * 12.92, high = 1.055 * pow(max(light, 0.0), vec3(1.0 / 2.4)) - 0.055;
  shown = vec4(mix(high, low, lessThanEqual(light, vec3(0.0031308))), 1.0);
}`,co=4294967295,[BT,zT]=[4,24],kT=.42,Ed=1.2;class GT{constructor(e,t){this.canvas=e,this.renderer=new ry({canvas:e,antialias:!1,powerPreference:"high-performance"}),this.renderer.autoClear=!1,this.renderer.setClearColor(0,1);const{leds:i}=t;this.position=ac(i.position),this.spot=mr(i.spot);const s=HT(this.position),r=i.outline.flatMap(o=>o.flatMap(([l,c])=>[l??0,c??0,s]));this.orbit=new oy(new Float32Array([...this.position,...r])),this.colours=new Uint8Array(3*i.count),this.colour=new Hl(this.colours,3,!0),this.colour.setUsage(Yg),this.uniforms={eye:{value:new W},size:{value:new Ve(1,1)},radius:{value:kT*i.spacing_mm},scale:{value:1},least:{value:1},most:{value:10},dim:{value:1}},this.addOutline(t,s),this.addLeds(ac(i.facing),i.count);const a={type:_i,depthBuffer:!1};this.sharp=new ii(1,1,{...a,minFilter:pn,magFilter:pn}),this.soft=new ii(1,1,a),this.addScreen()}canvas;orbit;position;spot;dim=1;renderer;thing=new Fa;cores=new Fa;halos=new Fa;screen=new Fa;sharp;soft;colours;colour;uniforms;width=1;height=1;light(e){const{colours:t,spot:i}=this;for(let s=0;s<i.length;s++){const r=i[s],a=3*r,o=3*s;t[o]=r===co?0:e[a],t[o+1]=r===co?0:e[a+1],t[o+2]=r===co?0:e[a+2]}this.colour.needsUpdate=!0}resize(e,t,i){this.width=Math.max(Math.round(e*i),1),this.height=Math.max(Math.round(t*i),1),this.renderer.setSize(this.width,this.height,!1),this.sharp.setSize(this.width,this.height)}draw(){const{renderer:e,orbit:t,uniforms:i}=this;t.place(this.width,this.height);const{camera:s}=t;i.eye.value.copy(s.position);const r=Math.tan(s.fov*Math.PI/360);i.dim.value=this.dim,this.aim(this.width,this.height,r),e.setRenderTarget(this.sharp),e.clear(),e.render(this.thing,s),e.render(this.cores,s);const a=this.coarse(r),[o,l]=[Math.ceil(this.width/a),Math.ceil(this.height/a)];(this.soft.width!==o||this.soft.height!==l)&&this.soft.setSize(o,l),this.aim(this.width/a,this.height/a,r),e.setRenderTarget(this.soft),e.clear(),e.render(this.halos,s),e.setRenderTarget(null),e.render(this.screen,s)}dispose(){this.renderer.dispose(),this.renderer.forceContextLoss()}project(e){return this.projectPoint(this.position.subarray(3*e,3*e+3))}projectPoint(e){const t=new W(e[0],e[1],e[2]).project(this.orbit.camera);return t.z>1?void 0:[.5+t.x/2,.5-t.y/2]}pick(e,t,i){const s=this.width/this.height;let r,a=i;for(let o=0;o<this.spot.length;o++){const l=this.project(o);if(!l||this.spot[o]===co)continue;const c=Math.hypot((l[0]-e)*s,l[1]-t);c<a&&([r,a]=[o,c])}return r}coarse(e){const t=this.orbit.camera.position.distanceTo(this.orbit.target),i=this.uniforms.radius.value*this.height/(2*e*Math.max(t,1)),s=Math.max(Math.min(this.width,this.height)/60,Ed);return Math.min(Math.max(Math.round(2*Math.min(i,s)),BT),zT)}aim(e,t,i){const{uniforms:s}=this;s.size.value.set(e,t),s.scale.value=t/(2*i),s.least.value=Ed*t/this.height,s.most.value=Math.max(Math.min(e,t)/60,s.least.value)}addOutline(e,t){for(const i of e.leds.outline){if(i.length<2)continue;const[s,r]=[i[0],i.at(-1)];if(s[0]===r[0]&&s[1]===r[1]){const l=new wp(i.map(([d,f])=>new Ve(d,f))),c=new _p({color:"#10131a",side:Pi,depthTest:!1}),u=new Ii(new Uu(l),c);u.position.z=t,this.thing.add(u)}const a=i.map(([l,c])=>new W(l,c,t)),o=new vp({color:"#4a5368",depthTest:!1});this.thing.add(new T_(new si().setFromPoints(a),o))}}addLeds(e,t){const i=new u0;i.instanceCount=t,i.setAttribute("corner",new Ni(new Float32Array([-1,-1,1,-1,1,1,-1,1]),2)),i.setIndex([0,1,2,0,2,3]),i.setAttribute("place",new Hl(this.position,3)),i.setAttribute("facing",new Hl(e,3)),i.setAttribute("colour",this.colour);const s=(r,a,o,l)=>{const c=new nu({glslVersion:No,vertexShader:a,fragmentShader:o,uniforms:this.uniforms,transparent:!0,depthTest:!1,depthWrite:!1,blending:l?dc:_r}),u=new Ii(i,c);u.frustumCulled=!1,u.renderOrder=10,r.add(u)};s(this.thing,IT,UT,!1),s(this.cores,PT,LT,!0),s(this.halos,DT,NT,!0)}addScreen(){const e=new si;e.setAttribute("position",new Ni(new Float32Array([-1,-1,0,3,-1,0,-1,3,0]),3));const t={sharp:{value:this.sharp.texture},soft:{value:this.soft.texture}},i=new nu({glslVersion:No,vertexShader:FT,fragmentShader:OT,uniforms:t,depthTest:!1}),s=new Ii(e,i);s.frustumCulled=!1,this.screen.add(s)}}function HT(n){let e=1/0;for(let t=2;t<n.length;t+=3)e=Math.min(e,n[t]);return Number.isFinite(e)?e:0}const VT=6,WT=.05;function XT({run:n,player:e,shown:t,label:i,ready:s,moved:r,touched:a}){const o=Ci(null),l=Ci(null),c=Ci(null),u=Ci(t);u.current=t;const[d,f]=fc(""),h=Ci(void 0);return Ki(()=>{const[g,M,p]=[l.current,c.current,o.current];let m;try{m=new GT(g,n.look)}catch(k){f(`This browser cannot draw in space (${k instanceof Error?k.message:"no WebGL 2"}). Signals, layers and the film strip work without it.`),s(void 0);return}h.current=m,m.orbit.look(u.current.view);const x=new MT(M,n.look,n.spots),A=Math.min(window.devicePixelRatio||1,2),S=new ZT;let[R,w]=[1,1];const _=()=>{[R,w]=[p.clientWidth,p.clientHeight],m.resize(R,w,A*S.share)};_();const b=new ResizeObserver(_);b.observe(p);let[z,N,L]=[0,"",""];const G=()=>{z=requestAnimationFrame(G);const k=performance.now();S.isSlow(k,e.isPlaying)&&_(),m.dim=e.flashes==="asking"?0:e.flashes==="dimmed"?.12:1;const I=[m.orbit.state,R,w,S.share,JSON.stringify(u.current)].join(),V=[n.made,m.dim,I].join();V!==N&&(N=V,m.light(n.seen()),m.draw(),I!==L&&x.draw(m,u.current,R,w,A),L=I,lc(e.timing.draw,performance.now()-k))};return G(),s(m),()=>{cancelAnimationFrame(z),b.disconnect(),m.dispose()}},[n]),Ki(()=>{const g=o.current;return JT(g,()=>h.current,r,(M,p)=>{const m=h.current;if(!m)return;const x=g.getBoundingClientRect();a(m.pick((M-x.left)/x.width,(p-x.top)/x.height,WT),m)})},[]),se("div",{class:"view",ref:o,tabIndex:0,role:"application","aria-label":`${i||n.look.name} in space: ${n.look.leds.count} LEDs. Arrow keys turn it, plus and minus zoom, 1 to 6 choose a side.`,onKeyDown:g=>{const M=h.current?.orbit,m={ArrowLeft:[5,0],ArrowRight:[-5,0],ArrowUp:[0,5],ArrowDown:[0,-5]}[g.key];if(M){if(m)M.turn(...m);else if(g.key==="+"||g.key==="=")M.nearer(1.15);else if(g.key==="-")M.nearer(1/1.15);else return;g.preventDefault(),r()}},children:[se("canvas",{ref:l,"aria-hidden":"true"}),se("canvas",{ref:c,class:"over","aria-hidden":"true"}),i&&se("span",{class:"label",children:i}),d&&se("p",{class:"sentence",children:d})]})}const qT=45,Td=.45,[YT,$T,KT]=[4,15,700];class ZT{share=1;took=[];last=0;isSlow(e,t){t&&this.last>0&&this.took.push(e-this.last),this.last=t?e:0;const i=this.took.reduce((r,a)=>r+a,0);if(this.took.length<YT||this.took.length<$T&&i<KT)return!1;const s=this.took.toSorted((r,a)=>r-a)[this.took.length>>1];return this.took.length=0,s<qT||this.share<=Td?!1:(this.share=Math.max(this.share*.75,Td),!0)}}function JT(n,e,t,i){const s=new Map;let r;const a=f=>{n.setPointerCapture(f.pointerId),s.set(f.pointerId,[f.clientX,f.clientY]),r=s.size===1?[f.clientX,f.clientY]:void 0},o=f=>{const h=s.get(f.pointerId),g=e()?.orbit;if(!h||!g)return;const[M,p]=[f.clientX-h[0],f.clientY-h[1]],x=[...s.entries()].filter(([S])=>S!==f.pointerId).map(([,S])=>S)[0],A=n.clientHeight||1;if(x){const S=w=>Math.hypot(w[0]-x[0],w[1]-x[1]),R=[f.clientX,f.clientY];g.nearer(S(R)/Math.max(S(h),1)),g.move(M/2/A,-p/2/A)}else f.shiftKey||f.buttons===2?g.move(M/A,-p/A):(!r||Math.hypot(f.clientX-r[0],f.clientY-r[1])>VT)&&(r=void 0,g.turn(M*180/A,p*180/A));s.set(f.pointerId,[f.clientX,f.clientY])},l=f=>{s.delete(f.pointerId),r&&i(f.clientX,f.clientY),r=void 0,t()},c=f=>{f.preventDefault(),e()?.orbit.nearer(Math.exp(-f.deltaY/500)),t()},d=[["pointerdown",a],["pointermove",o],["pointerup",l],["contextmenu",f=>f.preventDefault()]];for(const[f,h]of d)n.addEventListener(f,h);return n.addEventListener("wheel",c,{passive:!1}),()=>{for(const[f,h]of d)n.removeEventListener(f,h);n.removeEventListener("wheel",c)}}function QT({run:n}){const{look:e,module:t}=n,{places:i}=t,s=t.amps();return se(Sa,{children:[e.scenes.length>0&&se("section",{"aria-label":"Scenes",children:[se("h2",{children:"Scenes"}),se("ul",{children:e.scenes.map((r,a)=>{const o=t.read(i.scenes[a]);return se("li",{class:o>0?"fact":"fact off",children:[se(bd,{share:o,label:`${r.name}: ${va(o)}`}),se("span",{class:"name",children:r.name}),se("span",{class:"faint",children:r.why})]},r.name)})})]}),se("section",{"aria-label":"Supplies",children:[se("h2",{children:"Current"}),se("ul",{children:e.supplies.map(r=>{const a=(s[r.name]??0)+r.idle_a,o=r.limit_a,l=t.letThrough(r.name),c=r.name||"supply";return se("li",{class:"fact",children:[se(bd,{share:o?a/o:0,label:`${c}: ${a.toFixed(2)} A`}),se("span",{class:"name",children:c}),se("span",{class:"faint",children:[a.toFixed(2)," A",o?` of ${o.toFixed(2)} A`:"",r.has_limiter?l<1?`; limited to ${va(l)}`:"; limiter idle":""]})]},r.name)})})]}),se("section",{"aria-label":"Layers",children:[se("h2",{children:"Layers, top first"}),se("ul",{children:e.layers.toReversed().map(r=>{const a=i.layers.find(l=>l.number===r.number),o=a!==void 0&&t.read(a.on)!==0;return se("li",{class:o?"fact":"fact off",children:[se("i",{class:o?"dot on":"dot",role:"img","aria-label":o?"on":"off"}),se("span",{class:"name",children:r.name}),se("span",{class:"faint",children:a?r.why:`${r.why}: never`})]},r.number)})})]})]})}function bd({share:n,label:e}){const t=Math.min(Math.max(n,0),1);return se("span",{class:"meter",role:"img","aria-label":e,children:se("i",{style:{width:`${100*t}%`},class:n>1?"beyond":""})})}const jT=90,wd={signals:"signals",why:"layers",led:"LED"};function eb({data:n,player:e,start:t}){const[,i]=kd(R=>R+1,0),s=e.first.look,[r,a]=fc({view:t.view??s.view,wires:t.wires??!1,names:t.names??!1,addresses:t.addresses??!1,led:t.led!==void 0&&t.led<s.leds.count?t.led:void 0}),[o,l]=fc(t.led===void 0?"signals":"led"),c=Ci([]),u=mo(()=>new wT(e),[e]),d=mo(()=>new gy(s.rate),[e]),f=mo(()=>new my(e,()=>i(void 0)),[e]),h=Ci(r);h.current=r;const g=()=>{const R=c.current[0]?.orbit,w=tg({...h.current,time:e.time,speed:e.speed,deeds:e.deeds,view:R?.text??h.current.view});try{w&&history.replaceState(null,"",`#${w}`)}catch{}};Ki(()=>{e.onFrame(L=>{if(L===e.first)for(const G of s.signals){const k=L.module.toldLight(`why:signal:${G.name}`),I=k?k[1]:L.module.told(`why:signal:${G.name}`);I!==void 0&&d.push(G.name,I)}}),e.goTo(Math.min(t.time??0,e.end));let[R,w,_]=[performance.now(),0,0];const b=L=>{_=requestAnimationFrame(b),f.poll(),e.pass((L-R)/1e3),R=L,e.isPlaying&&L-w>jT&&(w=L,i(void 0))};_=requestAnimationFrame(b);const z=()=>i(void 0);window.addEventListener("gamepadconnected",z);const N=e.onChange(()=>{i(void 0),g()});return e.isReady=!0,i(void 0),()=>{cancelAnimationFrame(_),window.removeEventListener("gamepadconnected",z),N()}},[e]),Ki(g,[r]);const M=R=>{for(const w of c.current)w?.orbit.look(R);a(w=>({...w,view:R}))},p=R=>a(w=>({...w,[R]:!w[R]}));Ki(()=>{const R=w=>{const _=w.target;if(["INPUT","SELECT","TEXTAREA"].includes(_.tagName)||w.ctrlKey||w.metaKey||w.altKey)return;const b=Object.keys(ko)[Number(w.key)-1];if(w.key===" "&&_.tagName!=="BUTTON")e.play(!e.isPlaying);else if(w.key===",")e.stepBy(-1);else if(w.key===".")e.stepBy(1);else if(w.key==="Home")e.stepBy(-e.first.frame);else if(w.key==="w")p("wires");else if(w.key==="n")p("names");else if(w.key==="a")p("addresses");else if(w.key==="Escape")a(z=>({...z,led:void 0}));else if(b)M(b);else return;w.preventDefault()};return window.addEventListener("keydown",R),()=>window.removeEventListener("keydown",R)},[]);const m=c.current[0]?.orbit.side??r.view,x=r.led,A=x===void 0?void 0:c.current[0]?.spot[x],S=A!==void 0&&A<s.spots.count;return se("main",{class:n.looks.length>1?"page two":"page",children:[se("header",{class:"top",children:[se("div",{children:[se("h1",{children:n.title}),se("p",{class:"faint",children:s.about||`${s.leds.count} LEDs, ${s.rate} frames a second`})]}),se("nav",{"aria-label":"View",children:[se("div",{class:"group",role:"group","aria-label":"Side",children:Object.keys(ko).map((R,w)=>se("button",{class:m===R?"small on":"small","aria-pressed":m===R,title:`key ${w+1}`,onClick:()=>M(R),children:R},R))}),se("div",{class:"group",role:"group","aria-label":"Overlays",children:["wires","names","addresses"].map(R=>se("button",{class:r[R]?"small on":"small","aria-pressed":r[R],title:`key ${R[0]}`,onClick:()=>p(R),children:R},R))})]})]}),se("div",{class:"views",children:[e.runs.map((R,w)=>se(XT,{run:R,player:e,shown:w===0?r:{...r,led:void 0},label:n.looks.length>1?R.look.label||R.look.name:"",ready:_=>{c.current[w]=_,i(void 0)},moved:()=>{const _=c.current[w]?.orbit.text;_&&c.current.forEach((b,z)=>z!==w&&b?.orbit.look(_)),i(void 0),g()},touched:(_,b)=>{const z=_===void 0?void 0:b.position.subarray(3*_,3*_+3);z&&f.touch(z)||w===0&&(a(N=>({...N,led:_})),_!==void 0&&l("led"))}},w)),e.flashes==="asking"&&se(ly,{of:e})]}),se("aside",{class:"side","aria-label":"Signals and layers",children:[se("div",{class:"tabs",role:"tablist",children:Object.keys(wd).map(R=>se("button",{role:"tab","aria-selected":o===R,class:o===R?"on":"",onClick:()=>l(R),children:wd[R]},R))}),se("div",{class:"content",role:"tabpanel",children:[o==="signals"&&se(_y,{player:e,traces:d,pads:f}),o==="signals"&&f.count>0&&se(tb,{pads:f,player:e}),o==="why"&&se(QT,{run:e.first}),o==="led"&&(S?se(hy,{run:e.first,spot:A}):se("p",{class:"faint",children:"Touch an LED to see what it is and why it has its colour."}))]})]}),se(RT,{player:e,strip:u})]})}function tb({pads:n,player:e}){const t=e.first.look.signals.filter(i=>i.kind==="number"&&i.of==="");return se("section",{"aria-label":"Gamepad",children:[se("h2",{children:"Gamepad"}),Array.from({length:Math.min(n.count,6)},(i,s)=>se("label",{class:"axis",children:["axis ",s,se("select",{value:n.axes.get(s)??"",onChange:r=>n.bind(s,r.currentTarget.value),children:[se("option",{value:"",children:"not used"}),t.map(r=>se("option",{value:r.name,children:r.name},r.name))]})]},s))]})}async function nb(n){if(typeof WebAssembly!="object")throw new Error("This browser has no WebAssembly, which the page needs. Use a newer browser, or allow it.");const e=JSON.parse(document.getElementById("data")?.textContent??""),t=ng(location.hash),i=new Set(e.looks.flatMap(a=>a.signals.map(o=>o.name))),s=await Mu.start(e,(t.deeds??[]).filter(a=>i.has(a.signal)));s.speed=t.speed??1,Object.assign(globalThis,{fendra:s}),n.replaceChildren(),Zm(se(eb,{data:e,player:s,start:t}),n),!window.matchMedia("(prefers-reduced-motion: reduce)").matches&&t.time===void 0&&s.play(!0)}const Ad=document.getElementById("page");nb(Ad).catch(n=>{const e=document.createElement("p");e.className="sentence";const t=n instanceof Error?n.message:String(n);e.textContent=n instanceof SyntaxError?"The design in this page is damaged. Make the page again with `fendra page`.":t,Ad.replaceChildren(e)});
