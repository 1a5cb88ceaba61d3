# What Dibble's arguments mean, a command or the window, and how either is run. Whoever reads this has set start (the folder
# of this file), java, classes (the class path), archives (what names of archives begin with) and extra (an option, or
# nothing), and has a function ready, which sees that these are there for "window" or "commands".

. "$start/locale.sh"

command_line() {
    ready commands
    # What is over in half a second is not worth being compiled twice.
    case "$1" in
    route | sort | render) compiler=4 ;;
    *) compiler=1 ;;
    esac
    memory=-Xmx400m
    [ "$1" = render ] && memory=-Xmx1g
    exec "$java" "@$start/commands.options" ${extra:+"$extra"} "$memory" "-XX:TieredStopAtLevel=$compiler" \
        -XX:SharedArchiveFile="${archives}commands.jsa" -Xshare:auto -Xlog:disable -cp "$classes" dibble.cli.Main "$@"
}

window() {
    ready window
    "$java" "@$start/window.options" ${extra:+"$extra"} -XX:SharedArchiveFile="${archives}window.jsa" -Xshare:auto -Xlog:disable \
        -cp "$classes" dibble.desktop.app.Main "$@"
}

read -r commands <"$start/commands"
case "${1:-demo}" in
demo) ;;
--) shift ;;
*)
    # What is no file is a command that was mistyped, or a file that is not there: either is said without a window.
    case " $commands " in
    *" $1 "*) command_line "$@" ;;
    *) [ -f "$1" ] || command_line "$@" ;;
    esac
    ;;
esac

window "$@"
code=$?
# 75: the display that the environment names cannot be used.
[ "$code" -eq 75 ] || exit "$code"
echo "dibble: the display ${DISPLAY:-} cannot be used; going on without one" >&2
unset DISPLAY
window "$@"
