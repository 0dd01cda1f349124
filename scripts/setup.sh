# Installs what is missing. Sourced by demo.sh and test.sh; `need_modules` for both, `need_tools` for tests.

need_modules() {
  if [ ! -d node_modules ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
    echo "Installing packages (a native one is compiled, which takes some minutes) …"
    npm ci --no-audit --no-fund --loglevel=error
  fi
}

# Debian packages the tests need. On a machine without apt or the right to use it, says what to install.
need_tools() {
  local missing=()
  command -v chromium >/dev/null || missing+=(chromium)
  command -v pandoc >/dev/null || missing+=(pandoc)
  command -v bib2xml >/dev/null || missing+=(bibutils)
  [ ${#missing[@]} -eq 0 ] && return 0
  if command -v apt-get >/dev/null && [ "$(id -u)" = 0 ]; then
    echo "Installing ${missing[*]} …"
    apt-get update -qq
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "${missing[@]}" >/dev/null
  else
    echo "The tests need: ${missing[*]}. Install them with your package manager and run this again." >&2
    return 1
  fi
}

# Builds when there is no build or a source is newer than it.
need_build() {
  if [ ! -f build/catalogue.json ] || [ -n "$(find src static package-lock.json vite.config.ts vite.workers.config.ts svelte.config.js -newer build/catalogue.json -print -quit)" ]; then
    echo "Building …"
    npm run build --silent >build.log 2>&1 || { cat build.log; return 1; }
    rm -f build.log
  fi
}
