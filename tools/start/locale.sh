# File names may contain any letter, whatever locale the environment names. Sourced before Java or Maven is started.
case "${LC_ALL:-${LC_CTYPE:-${LANG:-}}}" in
*[Uu][Tt][Ff]8* | *[Uu][Tt][Ff]-8*) ;;
*)
    LC_ALL=C.UTF-8
    export LC_ALL
    ;;
esac
