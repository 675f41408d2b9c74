# Shared by ./demo and ./test: installs the missing Debian packages, then builds outside the source tree.
# Sets: root, build, assume_yes, may_install. Options understood: --yes --no-install.

root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
assume_yes=false
may_install=true

say() { printf '%s\n' "$*"; }

install_packages() {
    local missing=() package
    while read -r package; do
        [[ $package == \#* || -z $package ]] && continue
        [[ $(dpkg-query -W -f '${Status}' "$package" 2>/dev/null) == "install ok installed" ]] || missing+=("$package")
    done < "$root/scripts/packages.txt"
    [[ ${#missing[@]} -eq 0 ]] && return 0
    say "These Debian packages are needed and not installed: ${missing[*]}"
    if ! $may_install; then
        say "They are not installed because of --no-install; the build goes on with what is there."
        return 0
    fi
    local sudo=()
    if [[ $(id -u) -ne 0 ]]; then
        sudo=(sudo)
        if ! $assume_yes; then
            read -r -p "Install them with sudo apt-get? [y/N] " answer
            [[ $answer == [yY]* ]] || { say "Nothing was installed. Run again with --yes, or with --no-install where they come another way."; exit 1; }
        fi
    fi
    "${sudo[@]}" apt-get update -q
    "${sudo[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends "${missing[@]}"
}

# build PRESET TARGET...: configures where needed and builds.
build_preset() {
    local preset=$1
    shift
    build="$(dirname "$root")/$(basename "$root")-build/$preset"
    if [[ ! -f $build/build.ninja ]]; then
        say "Configuring $preset in $build"
        (cd "$root" && cmake --preset "$preset" > "/tmp/talvik-configure.$$" 2>&1) || { cat "/tmp/talvik-configure.$$"; exit 1; }
        rm -f "/tmp/talvik-configure.$$"
    fi
    say "Building $preset"
    cmake --build "$build" --parallel "$(nproc)" --target "$@" -- --quiet
}
