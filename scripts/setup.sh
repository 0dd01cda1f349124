# Installs what is missing. Sourced by demo.sh and test.sh; `need_modules` for both, `need_tools` for tests.

need_modules() {
  if [ ! -d node_modules ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
    echo "Installing packages (a native one is compiled, which takes some minutes) …"
    npm ci --include=dev --no-audit --no-fund --loglevel=error
  fi
}

# Debian packages the tests need. On a machine without apt or the right to use it, says what to install.
need_tools() {
  local missing=()
  command -v chromium >/dev/null || missing+=(chromium)
  command -v pandoc >/dev/null || missing+=(pandoc)
  command -v bib2xml >/dev/null || missing+=(bibutils)
  command -v bibtex >/dev/null || missing+=(texlive-binaries)
  command -v biber >/dev/null || missing+=(biber)
  command -v pdflatex >/dev/null || missing+=(texlive-latex-base)
  [ ${#missing[@]} -eq 0 ] && return 0
  if command -v apt-get >/dev/null && [ "$(id -u)" = 0 ]; then
    echo "Installing ${missing[*]} …"
    apt-get update -qq
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
  else
    echo "The tests need: ${missing[*]}. Install them with your package manager and run this again." >&2
    return 1
  fi
}

# Files the outside checks read, out of Debian's packages, which are unpacked and not installed: the CSL test suite,
# the example files of BibTeX and biblatex, the plain style. Where they cannot be had the test run leaves those checks out,
# with a word; in CI it fails.
need_outside() {
  local cache="$PWD/.cache/outside"
  [ -f "$cache/complete" ] && return 0
  if ! command -v apt-get >/dev/null || [ "$(id -u)" != 0 ] || [ ! -f /etc/apt/sources.list.d/debian.sources ]; then
    echo "The files of the outside checks cannot be had: this is not Debian, or not root." >&2
    return 1
  fi
  echo "Fetching the files of the outside checks …"
  local work
  work=$(mktemp -d)
  chmod 755 "$work"
  (
    cd "$work" || exit 1
    mkdir -p lists/partial
    sed 's/^Types: deb$/Types: deb-src/' /etc/apt/sources.list.d/debian.sources >src.sources
    apt_src() { apt-get -qq -o Dir::Etc::sourcelist=/dev/null -o Dir::Etc::sourceparts="$work" -o Dir::State::Lists="$work/lists" "$@"; }
    apt_src update
    apt_src source --download-only haskell-citeproc 2>/dev/null
    tar xf haskell-citeproc_*.orig.tar.gz
    apt-get -qq update
    apt-get -qq download texlive-base texlive-bibtex-extra 2>/dev/null
    for deb in *.deb; do
      dpkg-deb --fsys-tarfile "$deb" | tar x --wildcards '*/biblatex-examples.bib' '*/bib/base/xampl.bib' '*/bst/base/plain.bst' 2>/dev/null || true
    done
    mkdir -p "$cache/csl-suite"
    cp citeproc-*/test/csl/*.txt "$cache/csl-suite/"
    for name in biblatex-examples.bib xampl.bib plain.bst; do
      cp "$(find usr -name "$name" | head -1)" "$cache/"
    done
    [ -n "$(ls "$cache/csl-suite")" ] && [ -s "$cache/biblatex-examples.bib" ] && [ -s "$cache/xampl.bib" ] && [ -s "$cache/plain.bst" ] &&
      touch "$cache/complete"
  )
  rm -rf "$work"
  [ -f "$cache/complete" ] || { echo "The files of the outside checks could not be fetched." >&2; return 1; }
}

# Builds when there is no build or a source is newer than it.
need_build() {
  if [ ! -f build/catalogue.json ] || [ -n "$(find src static package-lock.json vite.config.ts vite.workers.config.ts svelte.config.js -newer build/catalogue.json -print -quit)" ]; then
    echo "Building …"
    npm run build --silent >build.log 2>&1 || { cat build.log; return 1; }
    rm -f build.log
  fi
}
