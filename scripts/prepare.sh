# Shared by ./start and ./check: makes sure that Node.js, the packages and the build are there.

need_node() {
  if ! command -v node >/dev/null || [ "$(node -p 'const [a, b] = process.versions.node.split(".").map(Number); a > 20 || (a === 20 && b >= 15)')" != true ]; then
    echo "Cavlo needs Node.js 20.15 or later. Install it, then run this again." >&2
    exit 1
  fi
}

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"; elif command -v sudo >/dev/null; then sudo "$@"; else
    echo "These system packages are missing and need root to install: $*" >&2
    return 1
  fi
}

# better-sqlite3 compiles where no ready binary fits; that takes about two minutes, once.
need_compiler() {
  if command -v python3 >/dev/null && command -v make >/dev/null && command -v g++ >/dev/null; then return; fi
  echo "Installing python3, make and g++ …"
  as_root apt-get update -qq
  as_root apt-get install -y -qq python3 make g++
}

fingerprint() {
  cat "$@" | sha256sum | cut -d' ' -f1
}

# Puts the packages in place and compiles in the background: `packages_ready` waits for that.
install_packages() {
  local stamp=node_modules/.cavlo-installed wanted
  wanted=$(fingerprint package-lock.json)
  compiling=
  if [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$wanted" ]; then return; fi
  need_compiler
  echo "Installing packages …"
  npm ci --no-audit --no-fund --loglevel=error --ignore-scripts
  (npm rebuild --loglevel=error && echo "$wanted" > "$stamp") > node_modules/.cavlo-rebuild 2>&1 &
  compiling=$!
}

packages_ready() {
  if [ -z "$compiling" ]; then return; fi
  if wait "$compiling"; then compiling=; else
    cat node_modules/.cavlo-rebuild >&2
    echo "The packages could not be compiled; what is above says why." >&2
    return 1
  fi
}

build_app() {
  local stamp=.next/cavlo-built wanted
  wanted=$(find src assembly public assets scripts/build-server.mjs scripts/build-loops.mjs scripts/build-present.mjs scripts/build-embed.mjs scripts/lighter.mjs scripts/place-fonts.mjs scripts/pack-statics.mjs package-lock.json next.config.ts postcss.config.mjs tsconfig.json -type f -not -path public/fonts/\* -not -path assets/fonts/other/\* -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
  if [ -f "$stamp" ] && [ -f dist/serve.mjs ] && [ -f dist/embed/cavlo.js ] && [ "$(cat "$stamp")" = "$wanted" ]; then return; fi
  echo "Building …"
  NEXT_TELEMETRY_DISABLED=1 npm run --silent build
  echo "$wanted" > "$stamp"
}

# Debian's Chromium, for the browser tests.
need_chromium() {
  if command -v chromium >/dev/null; then return; fi
  echo "Installing Chromium …"
  as_root apt-get update -qq
  as_root apt-get install -y -qq chromium
}
