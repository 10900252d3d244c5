import { createGlobalStyle } from 'styled-components';

/** The palette and faces of the marquetry; every colour in the application comes from here. */
export const GlobalStyle = createGlobalStyle`
  :root {
    --paper: #f7f2e8; --sheet: #fffdf8; --birch: #ece2cf; --line: #d9ccb4; --line-soft: #e8decb;
    --ink: #2a2119; --ink-2: #5f5344; --ink-3: #6f6352;
    --walnut: #4a3527; --ebony: #2b211b; --band: #3b2d24; --honey: #d39a35; --cinnamon: #b4622f; --plum: #7a3441;
    --moss: #4f6a3a; --sea: #2f6f73; --indigo: #344a78;
    --ok: #426334; --coming: #b98a2a; --short: #a8321f; --held: #5d4f78;
    --ok-ink: #35522a; --coming-ink: #6b4d0c; --short-ink: #8c2a20; --held-ink: #4b3f63;
    --ok-wash: #e9eedd; --coming-wash: #f6ead0; --short-wash: #f7e2da; --held-wash: #ebe5ee;
    --field: #fff; --on-dark: #fff7ea; --on-dark-go: #f3d59a; --on-dark-line: #6b5644; --shade: #2b211b2e;
    --bright: #fff; --veil: #1a120c99; --deep: #0006; --hint: #0002; --lit: #fffaf0aa;
    --on-band: #e8d9c0; --on-band-soft: #d9c8ab; --on-band-faint: #c6b497; --hot: #f7bd98; --on-honey: #22180f; --on-honey-soft: #3d290a; --me: #5d7445;
    --free: #6a8655; --free-deep: #577143; --coming-thread: #cf9f3f; --coming-cloth: #e5c686; --promised-dot: #7c6c98; --promised-cloth: #cfc5da; --short-cloth: #fbece6;
    --rail: #efe6d5; --rail-soft: #f3ebdc; --labour: #6b4e3a; --phone-now: #8d6a2a; --phone-open: #4b3a2f; --done-wash: #eef2e3; --shop: #f2f4ee;
    --text: 'Hanken Grotesk Variable', system-ui, sans-serif;
    --display: 'Brygada 1918 Variable', Georgia, serif;
  }
  *, *::before, *::after { box-sizing: border-box; }
  html { height: 100%; }
  [data-meant] { background: var(--coming-wash); box-shadow: inset 4px 0 var(--honey); }
  body {
    overflow-wrap: break-word; margin: 0; min-height: 100%; background: var(--paper); color: var(--ink);
    font: 14px/1.4 var(--text); font-variant-numeric: tabular-nums lining-nums;
  }
  h1, h2, h3 { font-family: var(--display); font-weight: 600; margin: 0; letter-spacing: -0.005em; }
  /* A name of 120 letters without a space goes on in the next line, and makes nothing wider. */
  h1, h2, h3, p, li, dd, td, th, aside, article > header { overflow-wrap: anywhere; }
  h1:focus, h2:focus { outline: none; }
  h1 { font-size: 27px; line-height: 1.1; }
  h2 { font-size: 18px; line-height: 1.2; }
  h3 { font-size: 15px; }
  p { margin: 0; }
  small { font-size: 12px; }
  a { color: var(--indigo); }
  table { border-collapse: collapse; width: 100%; }
  input, select, textarea, button { font: inherit; color: inherit; }
  :focus-visible { outline: 2px solid var(--indigo); outline-offset: 2px; }
  ::placeholder { color: var(--ink-3); opacity: 1; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { animation: none !important; transition: none !important; } }
  @media print { body[data-paper='list'] > :not([data-list-paper]) { display: none; } }
  @media print {
    body { background: #fff; color: #000; font-size: 11pt; }
    @page { margin: 14mm; }
  }
`;
