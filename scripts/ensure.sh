# Sourced by ./start, ./check and ./stigmos: makes sure that what they need is there, or says what is lacking.
project=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
export NEXT_TELEMETRY_DISABLED=1 PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1

lacks() {
  echo "stigmos: $1" >&2
  exit 1
}

ensure_node() {
  command -v node >/dev/null || lacks "Node.js 20 or newer is needed and was not found (Debian: apt install nodejs npm)."
  local major
  major=$(node -p 'process.versions.node.split(".")[0]')
  [ "$major" -ge 20 ] || lacks "Node.js 20 or newer is needed; this is $(node --version)."
}

# Packages are installed again when the lock file is not the one they were installed from.
ensure_packages() {
  local mark="$project/node_modules/.installed-from" want
  want=$(cksum <"$project/package-lock.json")
  [ -f "$mark" ] && [ "$(cat "$mark")" = "$want" ] && return
  command -v npm >/dev/null || lacks "npm is needed to install the packages and was not found (Debian: apt install npm)."
  echo "stigmos: installing packages (about a minute and a half, once)" >&2
  (
    cd "$project"
    # a mirror that lacks optional packages of other platforms makes "ci" refuse a good lock file
    npm ci --no-audit --no-fund --loglevel=error >/dev/null 2>&1 ||
      npm install --no-save --no-audit --no-fund --loglevel=error >&2
  ) || lacks "the packages could not be installed; is the npm registry within reach?"
  printf '%s' "$want" >"$mark"
}

# Finds Chromium for the browser tests, installing Debian's where that is allowed; sets CHROMIUM.
ensure_chromium() {
  CHROMIUM=$(command -v chromium || command -v chromium-browser || command -v google-chrome || true)
  if [ -z "$CHROMIUM" ] && command -v apt-get >/dev/null; then
    local root=""
    if [ "$(id -u)" -ne 0 ]; then
      command -v sudo >/dev/null && sudo -n true 2>/dev/null && root="sudo -n"
      [ -n "$root" ] || lacks "the browser tests need Chromium; as root: apt-get install chromium"
    fi
    echo "stigmos: installing Chromium for the browser tests" >&2
    $root apt-get update -qq >&2 || true
    $root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium >/dev/null ||
      lacks "Chromium could not be installed; as root: apt-get install chromium"
    CHROMIUM=$(command -v chromium || true)
  fi
  [ -n "$CHROMIUM" ] || lacks "the browser tests need Chromium (Debian: apt-get install chromium)."
  export CHROMIUM
}

# Unpacks files of spectra that other programs wrote, from Debian packages, for the tests to read. They are not part of
# Stigmos; where they cannot be had, that one test is left out.
ensure_spectra() {
  local into="$project/.cache/spectra" from
  [ -d "$into" ] && return
  command -v apt-get >/dev/null && command -v dpkg-deb >/dev/null || return 0
  from=$(mktemp -d)
  (
    cd "$from"
    apt-get download colord-data argyll-ref >/dev/null 2>&1 ||
      { apt-get update -qq >/dev/null 2>&1 && apt-get download colord-data argyll-ref >/dev/null 2>&1; }
    for package in *.deb; do dpkg-deb -x "$package" unpacked; done
    mkdir -p "$into"
    find unpacked -type f \( -name '*.sp' -o -name '*.ti1' -o -name '*.ti2' -o -name '*.cie' \) -exec cp {} "$into" \;
  ) >&2 || echo "stigmos: files of spectra from other programs could not be had; one test is left out" >&2
  rm -rf "$from"
}

# General tools that the tests have files checked by: of pictures, films, PDF and XML. Where they cannot be had, those tests are left out.
ensure_checkers() {
  local packages=() root=""
  command -v exiftool >/dev/null || packages+=(libimage-exiftool-perl)
  command -v pngcheck >/dev/null || packages+=(pngcheck)
  command -v identify >/dev/null || packages+=(imagemagick)
  command -v pdfinfo >/dev/null || packages+=(poppler-utils)
  command -v xmllint >/dev/null || packages+=(libxml2-utils)
  command -v ffprobe >/dev/null || packages+=(ffmpeg)
  [ ${#packages[@]} -gt 0 ] || return 0
  command -v apt-get >/dev/null || return 0
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null && sudo -n true 2>/dev/null || return 0
    root="sudo -n"
  fi
  echo "stigmos: installing tools that check files: ${packages[*]}" >&2
  $root apt-get update -qq >&2 || true
  $root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${packages[@]}" >/dev/null 2>&1 ||
    echo "stigmos: they could not be had; the tests that need them are left out" >&2
}

# Checksum of files, those of tests left out.
sum_of() { (cd "$project" && find "$@" -type f ! -name '*.test.ts' -print0 | sort -z | xargs -0 cksum | cksum); }

# Lets the engine paint demo paintings that are missing or were painted by another engine: those named, or all.
ensure_demo() {
  local mark="$project/.cache/demo-painted-from" want missing=()
  want=$(sum_of src/core demo public/demo/estuary.jpg public/demo/still-life.jpg public/demo/heron.jpg)
  if [ ! -f "$mark" ] || [ "$(cat "$mark")" != "$want" ]; then
    rm -f "$project"/public/demo/*.stigmos
    mkdir -p "$project/.cache"
    printf '%s' "$want" >"$mark"
  fi
  [ $# -gt 0 ] || set -- evening layered heron wet-sky ink-and-wash low-tide alla-prima glazed knife mussel charcoal
  local name
  for name in "$@"; do [ -f "$project/public/demo/$name.stigmos" ] || missing+=("$name"); done
  [ ${#missing[@]} -gt 0 ] || return 0
  echo "stigmos: painting the demo (${#missing[@]} of 11)" >&2
  (cd "$project" && node --import ./node_modules/tsx/dist/esm/index.mjs demo/bundle.ts "${missing[@]}" >&2)
}

# Builds the app when its sources are not those of the last build, and paints the demo: all of it, or what is named.
ensure_build() {
  local mark="$project/.next/.built-from" want painting
  want=$(sum_of src public/marks scripts/serviceWorker.mjs scripts/serviceWorker.source.js next.config.ts package-lock.json tsconfig.json)
  # neither needs the other, and most machines have two cores
  ensure_demo "$@" &
  painting=$!
  if [ ! -f "$mark" ] || [ "$(cat "$mark")" != "$want" ]; then
    echo "stigmos: building (about a minute)" >&2
    (
      cd "$project"
      node node_modules/next/dist/bin/next build >.build.log 2>&1 || { cat .build.log >&2; exit 1; }
      rm -f .build.log
      node scripts/serviceWorker.mjs >&2
    ) || { kill "$painting"; lacks "the app could not be built."; }
    printf '%s' "$want" >"$mark"
  fi
  wait "$painting" || lacks "the demo could not be painted."
}

free_port() {
  node -e "const s = require('node:net').createServer().listen(0, '127.0.0.1', () => { console.log(s.address().port); s.close(); })"
}
