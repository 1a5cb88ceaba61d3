# Has Java note the classes of the window, or of the commands, in an archive that later starts share. Without it they
# are slower, and nothing else. Arguments: the java, its class path, what the archive's name begins with, and of what it is:
# "window" or "commands".
start=$(CDPATH='' cd -- "$(dirname -- "$0")" && pwd)
home=$(mktemp -d) || exit
trap 'rm -rf "$home" "$written"' EXIT
java=$1
classes=$2
kind=$4
archive=$3$kind.jsa
# Two first starts at once each write their own; the later one stays.
written=$archive-$$
set -- "@$start/$kind.options" -XX:ArchiveClassesAtExit="$written" -Xlog:disable "-Duser.home=$home" "-Ddibble.data=$home" -cp "$classes"
case "$kind" in
window)
    # Off-screen, by showing every view.
    "$java" "$@" -Ddibble.offscreen=true -Ddibble.ends-when-shown=true -Ddibble.all-views=true dibble.desktop.app.Main demo
    ;;
*) "$java" "$@" dibble.cli.WarmUp ;;
esac >/dev/null 2>&1
[ ! -f "$written" ] || mv -f "$written" "$archive"
exit 0
