#!/bin/sh
# Installs the .deb on a machine without Java, uses it there, and takes it away again. Called by ./dibble package:
#   --check        the machine is this one, seen through a layer that takes up what is written; Java, the project and the
#                  network are taken away
#   --check-fresh  the machine is a new, bare one of the same release, fetched as this one's package manager is set up
# Needs root on Linux. The window is tried where Xvfb is there.
set -eu
packages=$1
kind=$2
home=$(CDPATH='' cd -- "$(dirname -- "$0")/../.." && pwd)

fail() {
    echo "dibble: $1" >&2
    exit 2
}

package=$(ls "$packages"/dibble_*.deb 2>/dev/null) || fail "no .deb in $packages: it is made on systems with dpkg-deb"
[ "$(id -u)" -eq 0 ] || fail "the package is installed for a check: that needs root (on a layer that is thrown away)"
command -v unshare >/dev/null 2>&1 || fail "unshare is missing: install util-linux"

if [ "${3:-}" != inside ]; then
    place=$(mktemp -d)
    trap 'rm -rf "$place"' EXIT
    if [ "$kind" = --check-fresh ]; then
        command -v debootstrap >/dev/null 2>&1 || fail "debootstrap is missing: install it"
        source=$(apt-get indextargets --format '$(REPO_URI)' | head -n 1)
        debootstrap --variant=minbase "$(. /etc/os-release && echo "$VERSION_CODENAME")" "$place/root" "$source" >"$place/log" 2>&1 \
            || fail "no fresh machine was made: $(tail -n 1 "$place/log")"
        cp /etc/apt/sources.list "$place/root/etc/apt/" 2>/dev/null || true
        cp /etc/resolv.conf "$place/root/etc/"
        cp "$package" "$place/root/"
        # What the package asks for is fetched, and what this check looks with.
        chroot "$place/root" sh -c "apt-get update -q && DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends \
            xvfb shared-mime-info desktop-file-utils libglib2.0-bin $(dpkg-deb -f "$package" Depends | sed 's/([^)]*)//g; s/|[^,]*//g; s/,/ /g')" >"$place/log" 2>&1 \
            || fail "what the package asks for cannot be installed: $(tail -n 1 "$place/log")"
    fi
    unshare --mount --net --pid --fork sh "$0" "$packages" "$kind" inside "$place"
    exit
fi

place=$4
root=$place/root
mount --make-rprivate /
if [ "$kind" = --check ]; then
    mkdir -p "$root" "$place/layer"
    mount -t tmpfs tmpfs "$place/layer"
    mkdir "$place/layer/upper" "$place/layer/work"
    mount -t overlay overlay -o "lowerdir=/,upperdir=$place/layer/upper,workdir=$place/layer/work" "$root"
    cp "$package" "$root/"
    rm -rf "$root/usr/lib/jvm" "$root/usr/share/maven"
    mkdir -p "$root$home"
    mount -t tmpfs tmpfs "$root$home"
fi
mount -t proc proc "$root/proc"
mount -t tmpfs tmpfs "$root/tmp"
mount -t tmpfs tmpfs "$root/root"
mount --bind /dev "$root/dev"
cp "$home/tools/package/inside.sh" "$root/tmp/"
env -i HOME=/root LC_ALL=C.UTF-8 PATH=/usr/sbin:/usr/bin:/sbin:/bin chroot "$root" sh /tmp/inside.sh "/$(basename "$package")"
