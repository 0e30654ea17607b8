/** The style of the guides, on top of that of the reference of the HTTP interface. */
export const docsStyle = `
html { scroll-behavior: auto; }
.docs .skip { position: absolute; inset-block-start: -4rem; }
.docs .skip:focus { inset-block-start: 0.5rem; background: var(--sheet); padding: 0.5rem 1rem; }
.docs > nav { max-height: calc(100vh - 3rem); overflow-y: auto; }
.docs > nav a[aria-current] { font-weight: 600; border-inline-start: 3px solid var(--leaf); padding-inline-start: 0.5rem; }
.docs form { margin-block: 0.6rem; }
.docs form input { width: 100%; min-height: 2.2rem; padding: 0.2rem 0.5rem; border: 1px solid var(--edge); border-radius: var(--round); background: var(--sheet); }
.docs form button { margin-block-start: 0.4rem; min-height: 1.9rem; padding: 0 0.8rem; border: 1px solid var(--leaf); border-radius: var(--round); background: var(--sheet); color: var(--leaf); cursor: pointer; }
.docs main { line-height: 1.6; }
.docs main:focus { outline: none; }
.docs main p, .docs main ul, .docs main ol { margin: 0.7rem 0; max-width: 46rem; }
.docs h2, .docs h3 { scroll-margin-top: 1rem; font-family: var(--text); }
.docs h3 { margin-top: 2rem; font-size: 1.15rem; }
.docs :is(h1, h2, h3) { font-family: var(--text); }
.docs :is(h1, h2, h3) a { color: inherit; text-decoration: none; }
.docs :is(h1, h2, h3) a:hover { text-decoration: underline; }
.docs :is(h1, h2, h3):target { background: var(--leaf-soft); }
.docs pre { background: var(--sheet); border: 1px solid var(--line); border-radius: var(--round); padding: 0.8rem 1rem; overflow-x: auto; font-size: 0.875rem; line-height: 1.45; }
.docs :not(pre) > code { background: var(--leaf-soft); border-radius: 3px; padding: 0 0.25em; overflow-wrap: anywhere; }
.docs .scroll { overflow-x: auto; margin-block: 0.8rem; }
.docs .scroll th, .docs .scroll td { border-block-end: 1px solid var(--line); }
.docs img { max-width: 100%; height: auto; border: 1px solid var(--line); border-radius: var(--round); }
.docs .picture { background: var(--sheet); border: 1px solid var(--line); border-radius: var(--round); }
.docs .picture .strong { fill: var(--leaf); }
.docs .picture .soft { fill: var(--leaf); opacity: 0.35; }
.docs .picture .line { fill: none; stroke: var(--quiet); stroke-width: 0.8; }
.docs blockquote { margin: 0.7rem 0; border-inline-start: 0.3rem solid var(--warn); padding-inline-start: 1rem; }
.docs .ways { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 1rem; margin-block: 3rem 1rem; border-block-start: 1px solid var(--line); padding-block-start: 1rem; }
.docs .found li { margin-block: 0.8rem; }
.docs small { color: var(--quiet); }
`;
