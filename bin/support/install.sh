# Installs what a fresh Debian machine with Node 20 lacks. Sourced by bin/start and bin/test; may run again at any time.
# Usage: need_packages <package>...   need_modules

need_node() {
  if ! command -v node >/dev/null || [ "$(node -p 'process.versions.node.split(".")[0]')" != 20 ]; then
    echo "Name Ledger needs Node 20. Install it, then run this again." >&2
    exit 1
  fi
}

need_packages() {
  local missing=()
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q '^install ok installed$' || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return
  local as_root=()
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null || { echo "Install these Debian packages as root, then run this again: ${missing[*]}" >&2; exit 1; }
    as_root=(sudo)
  fi
  echo "Installing Debian packages: ${missing[*]}"
  "${as_root[@]}" apt-get update -qq
  DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

need_modules() {
  local stamp=node_modules/.installed-lock
  if ! cmp -s package-lock.json "$stamp" 2>/dev/null; then
    echo "Installing packages from the lock file"
    npm ci --no-fund --no-audit --loglevel=error
    cp package-lock.json "$stamp"
  fi
}
