#!/bin/sh
# What check.sh does on the machine without Java: install, use, remove, and see that nothing stays.
set -eu
package=$1
# What a package manager keeps for itself, and what is not on a disk.
others='^/(proc|sys|dev|tmp|run|root|var/log|var/cache|var/lib/(dpkg|apt)|usr/share/mime/(XML|[a-z.]*$)|usr/share/applications/mimeinfo.cache)'

fail() {
    echo "dibble: $1" >&2
    [ ! -s /tmp/said ] || sed 's/^/    /' /tmp/said | tail -n 5 >&2
    exit 2
}

files() {
    find / -xdev \( -type f -o -type l -o -type d \) 2>/dev/null | grep -Ev "$others" | sort
}

! command -v java >/dev/null 2>&1 || fail "there is a Java on the machine of the check"
! dpkg-query -W dibble >/dev/null 2>&1 || fail "dibble is installed on this machine: what is new of it could not be told from what was there"
files >/tmp/before
dpkg --install "$package" >/tmp/said 2>&1 || fail "it cannot be installed:$(sed -n 's/.*dibble depends on \(.*\); however.*/ \1/p' /tmp/said | tr '\n' ',') is not here"
echo "installed: $(dpkg-query -W -f '${Version}, ${Installed-Size} KiB' dibble)"

for shared in /usr/lib/dibble/lib/window.jsa /usr/lib/dibble/lib/commands.jsa /usr/lib/dibble/lib/runtime/lib/server/classes.jsa; do
    [ -s $shared ] || fail "$shared was not written"
done
for library in $(find /usr/lib/dibble -name '*.so'); do
    missing=$(LD_LIBRARY_PATH=/usr/lib/dibble/lib/runtime/lib:/usr/lib/dibble/lib/runtime/lib/server ldd "$library" | grep 'not found' || true)
    [ -z "$missing" ] || fail "$library: $missing"
done
# A folder of its own, thrown away afterwards: Java takes the user's folder from the list of users.
cd /root

dibble --version
dibble demo /tmp/demo >/tmp/said 2>&1 || fail "the demo does not run off-screen"
session=$(ls /tmp/demo/*.dibble)
dibble check "$session" >/tmp/said 2>&1 || [ $? -eq 1 ] || fail "check does not run"
dibble sheet "$session" -o sheet.pdf >/tmp/said 2>&1 || fail "sheet does not run"
dibble render "$session" -o sounds >/tmp/said 2>&1 || fail "render does not run"
[ -s sheet.pdf ] && [ -s /tmp/demo/keys.png ] || fail "there is no sheet, or no picture"
echo "without a display: $(ls /tmp/demo | wc -l) files of the demo, a session checked, printed and rendered"

if command -v gio >/dev/null 2>&1 && command -v update-mime-database >/dev/null 2>&1 && command -v update-desktop-database >/dev/null 2>&1; then
    kind=$(gio info -a standard::content-type "$session" | sed -n 's/.*content-type: //p')
    [ "$kind" = application/x-dibble ] || fail "a session is taken for $kind"
    gio mime "$kind" | grep -q dibble.desktop || fail "nothing opens a session"
    gio mime audio/midi | grep -q dibble.desktop || fail "nothing offers to open a MIDI file"
fi
for page in /usr/share/man/man1/dibble*.gz; do
    gzip -t "$page"
done
for tool in "desktop-file-validate /usr/share/applications/dibble.desktop" \
    "appstreamcli validate --no-net /usr/share/metainfo/invalid.dibble.Dibble.metainfo.xml" \
    "bash -n /usr/share/bash-completion/completions/dibble" \
    "zsh -n /usr/share/zsh/vendor-completions/_dibble" \
    "fish --no-execute /usr/share/fish/vendor_completions.d/dibble.fish"; do
    ! command -v "${tool%% *}" >/dev/null 2>&1 || $tool >/tmp/said 2>&1 || fail "$tool is not content"
done

# The command of a double click, with a file in the place that it has for one.
double_click() {
    sed -n "s|^Exec=\(.*\)%f|\1$1|p" /usr/share/applications/dibble.desktop
}

# Waits until a file has a text in it; half a minute is a mistake.
until_in() {
    tries=0
    until grep -qs -- "$2" "$1"; do
        tries=$((tries + 1))
        [ $tries -lt 300 ] || fail "$2 was not seen in $1"
        kill -0 "$3" 2>/dev/null || fail "the window ended"
        sleep 0.1
    done
}

if command -v Xvfb >/dev/null 2>&1; then
    mkdir -p /tmp/.X11-unix
    Xvfb :7 -screen 0 1280x800x24 >/dev/null 2>&1 &
    display=$!
    trap 'kill $display 2>/dev/null || true' EXIT
    tries=0
    until [ -e /tmp/.X11-unix/X7 ]; do
        kill -0 $display && [ $tries -lt 100 ] || fail "Xvfb does not start"
        tries=$((tries + 1))
        sleep 0.1
    done
    DISPLAY=:7
    export DISPLAY
    JAVA_TOOL_OPTIONS=-Ddibble.ends-when-shown=true dibble demo >/tmp/said 2>&1 || fail "the demo shows no window"
    ! grep -q "cannot be used" /tmp/said || fail "the demo shows no window"
    $(double_click "$session") >/tmp/said 2>&1 &
    window=$!
    # What was opened is remembered.
    until_in /root/.local/share/dibble/memory.json "$session" $window
    kill $window 2>/dev/null || true
    for process in /proc/[0-9]*; do
        ! grep -qs dibble.desktop.app.Main "$process/cmdline" || kill "${process#/proc/}"
    done
    wait $window 2>/dev/null || true
    echo "in a window: the demo, and a session that was double-clicked"
fi
find /root -name '*.so' >/tmp/said
[ ! -s /tmp/said ] || fail "libraries were unpacked into the user's folder"

dpkg --purge dibble >/tmp/said 2>&1 || fail "it cannot be removed"
files >/tmp/after
diff /tmp/before /tmp/after >/tmp/said || fail "something stays, or is gone, after the removal"
echo "removed without trace"
