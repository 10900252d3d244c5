// styled-components and React Aria put style elements into the page; this lets the content security policy know them.
const nonce = document.querySelector('meta[property="csp-nonce"]')?.getAttribute('content') ?? undefined;
Object.assign(globalThis, { __webpack_nonce__: nonce });
