import { createGlobalStyle } from "styled-components";

export const GlobalStyle = createGlobalStyle`
  *, *::before, *::after { box-sizing: border-box; }
  html { -webkit-text-size-adjust: 100%; color-scheme: ${({ theme }) => theme.scheme}; background: ${({ theme }) => theme.colour.paper}; }
  body {
    margin: 0;
    background: ${({ theme }) => theme.colour.paper};
    color: ${({ theme }) => theme.colour.ink};
    font: 1.0625rem/1.4 ${({ theme }) => theme.font.text};
  }
  h1, h2, h3 { font-family: ${({ theme }) => theme.font.display}; line-height: 1.15; margin: 0; font-weight: 700; }
  h1 { font-size: 1.6875rem; }
  h2 { font-size: 1.25rem; }
  h3 { font-size: 1.0625rem; }
  p { margin: 0; }
  a { color: ${({ theme }) => theme.colour.sea}; }
  ul { margin: 0; padding: 0; list-style: none; }
  table { border-collapse: collapse; }
  :focus-visible { outline: 3px solid ${({ theme }) => theme.colour.ochre}; outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; }
  }
  @media print {
    html, body { background: white; }
    .screen-only { display: none !important; }
  }
`;
