# What has to be on the machine: a JDK, Maven, PostgreSQL, Node and, for walks and pictures, Chromium. Sourced by ./zolvan.

java_home_17() {
  local dir
  for dir in /usr/lib/jvm/java-17-openjdk-* /usr/lib/jvm/*17*; do
    [ -x "$dir/bin/javac" ] && printf '%s' "$dir" && return
  done
  return 0
}

newest_java() {
  local best=17 java=$JAVA_HOME/bin/java candidate version
  for candidate in /usr/lib/jvm/*/bin/java; do
    [ -x "$candidate" ] || continue
    version=$("$candidate" -version 2>&1 | sed -n '1s/^[^"]*"\([0-9]*\).*/\1/p')
    if [ "${version:-0}" -gt "$best" ]; then
      best=$version
      java=$candidate
    fi
  done
  printf '%s' "$java"
}

node_is_new_enough() {
  command -v node >/dev/null || return 1
  local version major minor
  version=$(node --version 2>/dev/null) || return 1
  version=${version#v}
  major=${version%%.*}
  minor=${version#*.}
  minor=${minor%%.*}
  [ "$major" -gt 20 ] || { [ "$major" -eq 20 ] && [ "$minor" -ge 19 ]; }
}

set_up_machine() { # $1: "browser" where the tests or pictures need one, "java" where nothing else is needed
  local missing=()
  [ -n "$(java_home_17)" ] || missing+=(openjdk-17-jdk-headless)
  command -v mvn >/dev/null || missing+=(maven)
  if [ "${1:-}" != java ]; then
    [ -n "$(pg_bin)" ] || missing+=(postgresql)
    command -v npm >/dev/null || missing+=(nodejs npm)
  fi
  if [ "${1:-}" = browser ]; then
    command -v chromium >/dev/null || missing+=(chromium)
    # a software renderer that is quicker than the browser's own
    ls /usr/lib/*/dri/swrast_dri.so >/dev/null 2>&1 || missing+=(libgl1-mesa-dri)
    ls /usr/lib/*/libEGL_mesa.so.0 >/dev/null 2>&1 || missing+=(libegl1 libegl-mesa0)
  fi
  if [ ${#missing[@]} -gt 0 ]; then
    local as_root=()
    if [ "$(id -u)" -ne 0 ]; then
      if command -v sudo >/dev/null && sudo -n true 2>/dev/null; then
        as_root=(sudo -n)
      else
        fail "please install these Debian packages first: apt-get install ${missing[*]}"
      fi
    fi
    command -v apt-get >/dev/null || fail "please install: ${missing[*]}"
    say "Installing ${missing[*]} …"
    mkdir -p "$VAR/log"
    "${as_root[@]}" apt-get update -qq >"$VAR/log/apt.log" 2>&1 || fail "apt-get update failed; see var/log/apt.log"
    # a database of our own is started below; the package's must not be made
    "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends \
      "${missing[@]}" ca-certificates >>"$VAR/log/apt.log" 2>&1 || fail "apt-get install failed; see var/log/apt.log"
  fi
  JAVA_HOME=$(java_home_17)
  export JAVA_HOME
  if [ "${1:-}" = java ]; then return; fi
  if ! node_is_new_enough; then
    local node_dir=$VAR/tools/node_modules
    if [ ! -x "$node_dir/node/bin/node" ]; then
      say "Fetching a newer Node …"
      mkdir -p "$VAR/tools" "$VAR/log"
      npm install --no-audit --no-fund --no-package-lock --prefix "$VAR/tools" "node@$NODE_VERSION" "npm@$NPM_VERSION" \
        >"$VAR/log/node.log" 2>&1 || fail "could not fetch Node $NODE_VERSION; see var/log/node.log"
    fi
    export PATH="$node_dir/node/bin:$node_dir/.bin:$PATH"
    hash -r
    node_is_new_enough || fail "Node $NODE_VERSION was fetched but does not run; see var/log/node.log"
  fi
}
