/** Combining marks by TeX accent command (The TeXbook, chapter 9; LaTeX2e `\k`, `\r`; T1 and TIPA `\textsubring` left out). */
export const ACCENTS: Record<string, string> = {
  '`': '\u0300', "'": '\u0301', '^': '\u0302', '~': '\u0303', '"': '\u0308', '=': '\u0304', '.': '\u0307',
  u: '\u0306', v: '\u030C', H: '\u030B', c: '\u0327', k: '\u0328', r: '\u030A', d: '\u0323', b: '\u0331', t: '\u0361',
}; // prettier-ignore

/** Commands that are a character of their own (LaTeX2e, `textcomp`, `fontenc` T1). */
export const SYMBOLS: Record<string, string> = {
  ss: 'ß', SS: 'ẞ', ae: 'æ', AE: 'Æ', oe: 'œ', OE: 'Œ', o: 'ø', O: 'Ø', aa: 'å', AA: 'Å', l: 'ł', L: 'Ł', i: 'ı', j: 'ȷ', dh: 'ð',
  DH: 'Ð', th: 'þ', TH: 'Þ', dj: 'đ', DJ: 'Đ', ng: 'ŋ', NG: 'Ŋ', S: '§', P: '¶', dag: '†', ddag: '‡', copyright: '©', pounds: '£',
  ldots: '…', dots: '…', textellipsis: '…', textendash: '–', textemdash: '—', textquoteleft: '‘', textquoteright: '’',
  textquotedblleft: '“', textquotedblright: '”', quotedblbase: '„', quotesinglbase: '‚', guillemotleft: '«', guillemotright: '»',
  guillemetleft: '«', guillemetright: '»', guilsinglleft: '‹', guilsinglright: '›', glqq: '„', grqq: '“', flqq: '«', frqq: '»',
  textbackslash: '\\', textasciitilde: '~', textasciicircum: '^', textasciigrave: '`', textquotesingle: "'", textquotedbl: '"',
  textbar: '|', textless: '<', textgreater: '>', textdegree: '°', texttimes: '×', textregistered: '®', texttrademark: '™', texteuro: '€',
  euro: '€', textunderscore: '_', slash: '/', textbullet: '•', textperiodcentered: '·', textexclamdown: '¡', textquestiondown: '¿',
  textordfeminine: 'ª', textordmasculine: 'º', textsection: '§', textparagraph: '¶', textcopyright: '©', textsterling: '£', textyen: '¥',
  textcent: '¢', textmu: 'µ', textonehalf: '½', textonequarter: '¼', textthreequarters: '¾', textpm: '±', textnumero: '№', textbraceleft: '{',
  textbraceright: '}', textdollar: '$', lbrace: '{', rbrace: '}', TeX: 'TeX', LaTeX: 'LaTeX', BibTeX: 'BibTeX', LaTeXe: 'LaTeX2e', quad: ' ',
  qquad: ' ', space: ' ', textvisiblespace: ' ', newblock: ' ', thinspace: ' ', enspace: ' ', par: ' ', newline: ' ', linebreak: ' ',
  textthreesuperior: '³', texttwosuperior: '²', textonesuperior: '¹', textdblhyphen: '⸗', hyphen: '-', adddot: '.', addcomma: ',', addcolon: ':',
  addspace: ' ', bibrangedash: '–',
}; // prettier-ignore

/** Commands of maths that are a character (The TeXbook, appendix F; amssymb's commonest). */
export const MATHS: Record<string, string> = {
  alpha: 'α', beta: 'β', gamma: 'γ', delta: 'δ', epsilon: 'ϵ', varepsilon: 'ε', zeta: 'ζ', eta: 'η', theta: 'θ', vartheta: 'ϑ', iota: 'ι',
  kappa: 'κ', lambda: 'λ', mu: 'μ', nu: 'ν', xi: 'ξ', pi: 'π', varpi: 'ϖ', rho: 'ρ', varrho: 'ϱ', sigma: 'σ', varsigma: 'ς', tau: 'τ',
  upsilon: 'υ', phi: 'ϕ', varphi: 'φ', chi: 'χ', psi: 'ψ', omega: 'ω', Gamma: 'Γ', Delta: 'Δ', Theta: 'Θ', Lambda: 'Λ', Xi: 'Ξ', Pi: 'Π',
  Sigma: 'Σ', Upsilon: 'Υ', Phi: 'Φ', Psi: 'Ψ', Omega: 'Ω', times: '×', div: '÷', pm: '±', mp: '∓', cdot: '·', cdots: '⋯', ldots: '…',
  ast: '∗', star: '⋆', circ: '∘', bullet: '•', le: '≤', leq: '≤', leqslant: '≤', ge: '≥', geq: '≥', geqslant: '≥', ne: '≠', neq: '≠', ll: '≪', gg: '≫',
  approx: '≈', sim: '∼', simeq: '≃', cong: '≅', equiv: '≡', propto: '∝', infty: '∞', partial: '∂', nabla: '∇', sum: '∑', prod: '∏', int: '∫',
  oint: '∮', forall: '∀', exists: '∃', in: '∈', notin: '∉', ni: '∋', subset: '⊂', supset: '⊃', subseteq: '⊆', supseteq: '⊇', cup: '∪',
  cap: '∩', setminus: '∖', emptyset: '∅', varnothing: '∅', wedge: '∧', vee: '∨', neg: '¬', to: '→', rightarrow: '→', leftarrow: '←',
  leftrightarrow: '↔', Rightarrow: '⇒', Leftarrow: '⇐', Leftrightarrow: '⇔', mapsto: '↦', uparrow: '↑', downarrow: '↓', langle: '⟨',
  rangle: '⟩', lfloor: '⌊', rfloor: '⌋', lceil: '⌈', rceil: '⌉', ell: 'ℓ', hbar: 'ℏ', Re: 'ℜ', Im: 'ℑ', aleph: 'ℵ', prime: '′', degree: '°',
  angle: '∠', perp: '⊥', parallel: '∥', mid: '∣', oplus: '⊕', otimes: '⊗', dagger: '†', ddagger: '‡', square: '□', Box: '□', lbrace: '{',
  rbrace: '}', backslash: '\\', vert: '|', Vert: '‖', dots: '…', quad: ' ', qquad: ' ', colon: ':', lt: '<', gt: '>', log: 'log', ln: 'ln', sin: 'sin',
  cos: 'cos', tan: 'tan', exp: 'exp', max: 'max', min: 'min', lim: 'lim', sup: 'sup', inf: 'inf', det: 'det', dim: 'dim', ker: 'ker', deg: 'deg',
  gcd: 'gcd', mod: 'mod', bmod: 'mod',
}; // prettier-ignore

/** Letters of `\mathbb`. */
export const DOUBLE_STRUCK: Record<string, string> = {
  C: 'ℂ',
  H: 'ℍ',
  N: 'ℕ',
  P: 'ℙ',
  Q: 'ℚ',
  R: 'ℝ',
  Z: 'ℤ',
};

/** Commands whose argument becomes CSL rich text. */
export const MARKUP: Record<string, string> = {
  emph: 'i', textit: 'i', textsl: 'i', mkbibemph: 'i', mkbibitalic: 'i', textbf: 'b', mkbibbold: 'b', textsuperscript: 'sup', mkbibsuperscript: 'sup',
  textsubscript: 'sub', mkbibsubscript: 'sub', textsc: 'sc',
}; // prettier-ignore

/** Switches that hold to the end of their group, and what the rest of the group becomes; the empty ones change nothing CSL knows. */
export const SWITCHES: Record<string, string> = {
  em: 'i', it: 'i', sl: 'i', itshape: 'i', slshape: 'i', bf: 'b', bfseries: 'b', sc: 'sc', scshape: 'sc', rm: '', tt: '', sf: '', rmfamily: '',
  ttfamily: '', sffamily: '', upshape: '', mdseries: '', normalfont: '', small: '', footnotesize: '', large: '', normalsize: '', relax: '',
  protect: '', sloppy: '', noindent: '', nobreak: '', allowbreak: '', nolinkurl: '',
}; // prettier-ignore

/** Commands with several arguments, and which of them is the text. */
export const TEXT_ARGUMENT: Record<string, { count: number; text: number }> = {
  href: { count: 2, text: 1 },
  foreignlanguage: { count: 2, text: 1 },
  textcolor: { count: 2, text: 1 },
  texorpdfstring: { count: 2, text: 1 },
  ifthenelse: { count: 3, text: 1 },
  hspace: { count: 1, text: -1 },
  vspace: { count: 1, text: -1 },
  footnote: { count: 1, text: -1 },
  label: { count: 1, text: -1 },
  ref: { count: 1, text: -1 },
  cite: { count: 1, text: -1 },
  nocite: { count: 1, text: -1 },
  arabic: { count: 1, text: -1 },
  noopsort: { count: 1, text: -1 },
};
