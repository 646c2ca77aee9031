# Sourced by ./start, ./test and ./bench: installs what is missing, and nothing twice.
# Needs the current folder to be the project's.

say() { printf '%s\n' "$*" >&2; }

# What a set of files says, in one word: it changes when any of them does.
fingerprint() { cat "$@" | sha256sum | cut -c1-32; }

# prepare_alone: two starts at once in one folder prepare one after the other. The lock ends with the process, or at `prepared`.
prepare_alone() {
  # In braces: what is silenced is this line, not everything after it.
  { exec 9>>.preparing; } 2>/dev/null || { say "This folder can't be written to: $PWD"; exit 1; }
  flock -n 9 && return 0
  say "Another start prepares this folder; waiting for it."
  flock 9
}
prepared() { exec 9>&-; }

# prepare_system COMMAND-OR-FILE=PACKAGE ...: Debian packages for whatever isn't there yet.
prepare_system() {
  local missing=() pair
  for pair in "$@"; do
    compgen -G "${pair%%=*}" >/dev/null || command -v "${pair%%=*}" >/dev/null || missing+=("${pair#*=}")
  done
  # Debian splits venv from Python; ensurepip is the part that is missing then.
  python3 -c 'import ensurepip' 2>/dev/null || missing+=(python3-venv)
  [ ${#missing[@]} -gt 0 ] || return 0
  say "Installing Debian packages: ${missing[*]}"
  local become=()
  if [ "$(id -u)" != 0 ]; then
    if command -v sudo >/dev/null && { sudo -n true 2>/dev/null || { [ -t 0 ] && sudo -v; }; }; then
      become=(sudo)
    else
      say "These packages are missing and this user can't install them. Ask whoever looks after the machine for:"
      say "  apt-get install ${missing[*]}"
      exit 1
    fi
  fi
  "${become[@]}" env DEBIAN_FRONTEND=noninteractive apt-get update -qq >&2
  # Debian's own cluster is not ours: its server need not start.
  "${become[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >&2
}

# prepare_python LOCK: the virtual environment with everything that requirements/LOCK.lock names.
prepare_python() {
  local lock="requirements/$1.lock" wanted
  wanted=$(fingerprint "$lock" requirements/bootstrap.lock pyproject.toml)
  # An environment that was cut short while it was made has a Python but nothing to install with.
  if ! .venv/bin/python -m pip --version >/dev/null 2>&1; then
    say "Making the virtual environment"
    rm -rf .venv
    python3 -m venv .venv
  fi
  # What ./test installs serves ./start too: either stamp will do for the smaller set.
  [ "$(cat ".venv/stamp-$1" 2>/dev/null)" != "$wanted" ] || return 0
  say "Installing Python packages"
  rm -f ".venv/stamp-$1"
  .venv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r requirements/bootstrap.lock
  .venv/bin/uv pip install -q --python .venv/bin/python --require-hashes --compile-bytecode -r "$lock"
  .venv/bin/uv pip install -q --python .venv/bin/python --no-deps --no-build-isolation -e .
  .venv/bin/python -m compileall -q pliant_coil || true
  printf '%s' "$wanted" > ".venv/stamp-$1"
}

# Node.js: the machine's own when it is new enough for the build tools, else one from a wheel.
prepare_node() {
  if node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 22 || (a === 22 && b >= 12) || (a === 20 && b >= 19) ? 0 : 1)' 2>/dev/null &&
    command -v npm >/dev/null; then
    return 0
  fi
  if [ ! -x .venv/bin/npm ]; then
    say "Installing Node.js into the virtual environment"
    .venv/bin/uv pip install -q --python .venv/bin/python --require-hashes -r requirements/node.lock
  fi
  PATH="$PWD/.venv/bin:$PATH"
}

prepare_node_modules() {
  local wanted
  wanted=$(fingerprint web/package-lock.json web/package.json)
  [ "$(cat web/node_modules/.stamp 2>/dev/null)" != "$wanted" ] || return 0
  prepare_node
  say "Installing front-end packages"
  (cd web && npm ci --no-audit --no-fund --loglevel=error) >&2
  printf '%s' "$wanted" > web/node_modules/.stamp
}

# The front end, built again when its sources changed; a build that was cut short leaves the old one in place.
prepare_front_end() {
  local wanted
  wanted=$(find web/src web/index.html web/vite.config.ts web/package-lock.json -type f | LC_ALL=C sort | xargs cat | sha256sum | cut -c1-32)
  [ "$(cat web/dist/.stamp 2>/dev/null)" != "$wanted" ] || return 0
  prepare_node
  prepare_node_modules
  say "Building the front end"
  rm -rf web/dist.new
  (cd web && npx --no-install vite build --logLevel warn --outDir dist.new --emptyOutDir) >&2
  printf '%s' "$wanted" > web/dist.new/.stamp
  rm -rf web/dist
  mv web/dist.new web/dist
}
