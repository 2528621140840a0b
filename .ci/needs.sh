# Sourced by scripts: installs Debian packages that a step needs and the machine lacks.
# need_debian PROGRAM-OR-FILE PACKAGE   does nothing if the program is on the PATH or the file is there.
need_debian() {
    local there="$1" package="$2" sudo=""
    if command -v "$there" >/dev/null 2>&1 || [ -e "$there" ]; then return 0; fi
    if [ "$(id -u)" != 0 ]; then sudo="sudo -n"; fi
    if command -v apt-get >/dev/null 2>&1 && { [ -z "$sudo" ] || sudo -n true 2>/dev/null; }; then
        echo "Installing $package …" >&2
        $sudo apt-get update -qq >/dev/null 2>&1 || true
        if DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq --no-install-recommends "$package" >/dev/null 2>&1; then return 0; fi
    fi
    echo "This needs Debian's package $package, and it could not be installed here; please run: apt-get install $package" >&2
    exit 3
}
