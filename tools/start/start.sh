# What Dibble's arguments mean: a command, or the window. Whoever reads this has set start, the folder of this file, and
# has two functions, command_line and window, that run them.

# Names of files have letters of all kinds in them, whatever the environment says.
case "${LC_ALL:-${LC_CTYPE:-${LANG:-}}}" in
*[Uu][Tt][Ff]8* | *[Uu][Tt][Ff]-8*) ;;
*)
    LC_ALL=C.UTF-8
    export LC_ALL
    ;;
esac

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
