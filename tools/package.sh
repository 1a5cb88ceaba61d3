#!/bin/sh
# Makes an application that needs no Java and no Maven, of what ./dibble has built; called by ./dibble package.
# On Linux: target/package/Dibble (an image) and target/package/dibble_VERSION_ARCH.deb.
#   --check   installs the package below a folder of its own, runs it with nothing else, and takes it away again
set -eu
here=$1
lib=$2
version=$3
shift 3
out=$here/target/package
main=dibble-desktop-$version.jar
# Every file in what is made has this time, so that the same source gives the same bytes.
SOURCE_DATE_EPOCH=$(sed -n 's/.*<project.build.outputTimestamp>\(.*\)<.*/\1/p' "$here/pom.xml")
SOURCE_DATE_EPOCH=$(date -u -d "$SOURCE_DATE_EPOCH" +%s)
export SOURCE_DATE_EPOCH

fail() {
    echo "dibble: $1" >&2
    exit 2
}

for tool in jlink jpackage jdeps; do
    command -v $tool >/dev/null 2>&1 || fail "$tool is missing: install a whole JDK, 17 or newer"
done

image() {
    rm -rf "$out"
    mkdir -p "$out/lib"
    cp "$lib"/*.jar "$out/lib/"
    # What the libraries name, and what is found by its name only: synthesizers, printers, encodings, how users write numbers.
    found=$(jdeps --print-module-deps --ignore-missing-deps --multi-release 17 --class-path "$out/lib/*" "$out/lib/$main" \
        "$out/lib/dibble-cli-$version.jar" "$out"/lib/dibble-*.jar 2>/dev/null | tail -n 1)
    [ -n "$found" ] || fail "jdeps found no modules"
    jlink --add-modules "$found,java.desktop,java.logging,java.management,java.naming,java.xml,jdk.unsupported,jdk.localedata,jdk.charsets,jdk.zipfs" \
        --strip-debug --no-man-pages --no-header-files --compress=2 --output "$out/runtime"
    cat >"$out/cli.properties" <<END
main-jar=dibble-cli-$version.jar
main-class=dibble.cli.Main
java-options=-XX:+UseSerialGC -Xmx1g -XX:TieredStopAtLevel=1 --add-exports=java.desktop/com.sun.media.sound=ALL-UNNAMED
END
    jpackage --type app-image --name Dibble --app-version "$version" --dest "$out" --input "$out/lib" \
        --runtime-image "$out/runtime" --main-jar "$main" --main-class dibble.desktop.app.Main \
        --icon "$here/desktop/src/main/resources/dibble/desktop/icon/icon-256.png" \
        --add-launcher "dibble-cli=$out/cli.properties" \
        --java-options "--add-exports=java.desktop/com.sun.media.sound=ALL-UNNAMED" \
        --java-options "-Xms24m -Xmx1g -XX:+UseG1GC -XX:MinHeapFreeRatio=10 -XX:MaxHeapFreeRatio=20" \
        --java-options "-XX:G1PeriodicGCInterval=30000 -XX:TieredStopAtLevel=1 -XX:ReservedCodeCacheSize=64m"
    rm -rf "$out/lib" "$out/runtime" "$out/cli.properties"
}

deb() {
    arch=$(dpkg --print-architecture)
    root=$out/deb
    mkdir -p "$root/opt" "$root/usr/bin" "$root/usr/share/applications" "$root/usr/share/mime/packages" \
        "$root/usr/share/icons/hicolor/256x256/apps" "$root/usr/share/man/man1" "$root/usr/share/metainfo" \
        "$root/usr/share/doc/dibble" "$root/DEBIAN"
    cp -a "$out/Dibble" "$root/opt/dibble"
    cp "$here/desktop/src/main/resources/dibble/desktop/icon/icon-256.png" "$root/usr/share/icons/hicolor/256x256/apps/dibble.png"
    cp "$here/LICENSE" "$root/usr/share/doc/dibble/copyright"
    cat >"$root/usr/bin/dibble" <<'END'
#!/bin/sh
# The window, or a command that needs none.
case "${1-}" in
route | trace | check | sort | quantize | edit | render | sheet | compare | ports | -h | --help | -V | --version)
    exec /opt/dibble/bin/dibble-cli "$@" ;;
esac
exec /opt/dibble/bin/Dibble "$@"
END
    chmod 755 "$root/usr/bin/dibble"
    cat >"$root/usr/share/applications/dibble.desktop" <<'END'
[Desktop Entry]
Type=Application
Name=Dibble
Comment=Assigns, splits and remaps MIDI channels and key zones
Exec=dibble %f
Icon=dibble
Terminal=false
Categories=AudioVideo;Audio;Midi;Music;
MimeType=application/x-dibble;audio/midi;
END
    cat >"$root/usr/share/mime/packages/dibble.xml" <<'END'
<?xml version="1.0" encoding="UTF-8"?>
<mime-info xmlns="http://www.freedesktop.org/standards/shared-mime-info">
  <mime-type type="application/x-dibble">
    <comment>Dibble session</comment>
    <sub-class-of type="application/zip"/>
    <glob pattern="*.dibble"/>
  </mime-type>
</mime-info>
END
    cat >"$root/usr/share/metainfo/dibble.metainfo.xml" <<END
<?xml version="1.0" encoding="UTF-8"?>
<component type="desktop-application">
  <id>dibble</id>
  <name>Dibble</name>
  <summary>Assigns, splits and remaps MIDI channels and key zones</summary>
  <metadata_license>CC0-1.0</metadata_license>
  <project_license>Apache-2.0</project_license>
  <description><p>Several keyboards and sequencer tracks drive multitimbral instruments, parts and outside sound modules
  independently, and are recorded as separate tracks.</p></description>
  <launchable type="desktop-id">dibble.desktop</launchable>
  <releases><release version="$version" date="2026-11-28"/></releases>
</component>
END
    {
        echo ".TH DIBBLE 1 \"\" \"Dibble $version\""
        echo ".SH NAME"
        echo "dibble \\- assigns, splits and remaps MIDI channels and key zones"
        echo ".SH USAGE"
        echo ".nf"
        "$out/Dibble/bin/dibble-cli" --help | sed 's/\\/\\\\/g; s/^\./\\\&./; s/-/\\-/g'
        echo ".fi"
    } | gzip -9 -n >"$root/usr/share/man/man1/dibble.1.gz"
    cat >"$root/DEBIAN/control" <<END
Package: dibble
Version: $version
Architecture: $arch
Maintainer: The founders of Dibble <founders@dibble.invalid>
Installed-Size: $(du -sk "$root" | cut -f 1)
Depends: libc6, libgtk-3-0 | libgtk-3-0t64, libgl1, libxtst6, libxxf86vm1, libasound2 | libasound2t64, fonts-dejavu-core
Recommends: shared-mime-info, desktop-file-utils
Suggests: jackd2
Section: sound
Priority: optional
Description: Assigns, splits and remaps MIDI channels and key zones
 Several keyboards and sequencer tracks drive multitimbral instruments, parts
 and outside sound modules independently, and are recorded as separate tracks.
END
    for when in postinst postrm; do
        cat >"$root/DEBIAN/$when" <<'END'
#!/bin/sh
set -e
if command -v update-mime-database >/dev/null 2>&1; then update-mime-database /usr/share/mime || true; fi
if command -v update-desktop-database >/dev/null 2>&1; then update-desktop-database -q || true; fi
END
        chmod 755 "$root/DEBIAN/$when"
    done
    find "$root" -exec touch -h -d "@$SOURCE_DATE_EPOCH" {} +
    dpkg-deb --root-owner-group --build "$root" "$out/dibble_${version}_$arch.deb" >/dev/null
    rm -rf "$root"
}

# Installed below a folder, with an environment in which there is no Java: what the package has must do.
check() {
    package=$(ls "$out"/dibble_*.deb)
    place=$(mktemp -d)
    trap 'rm -rf "$place"' EXIT
    dpkg-deb -x "$package" "$place"
    launch() {
        env -i HOME="$place/home" LC_ALL=C.UTF-8 PATH=/usr/bin:/bin "$@"
    }
    mkdir -p "$place/home"
    launch "$place/opt/dibble/bin/dibble-cli" --version
    demo=$place/home/demo
    launch "$place/opt/dibble/bin/Dibble" demo "$demo" >/dev/null
    session=$(ls "$demo"/*.dibble)
    launch "$place/opt/dibble/bin/dibble-cli" check "$session" >/dev/null || [ $? -eq 1 ]
    launch "$place/opt/dibble/bin/dibble-cli" sheet "$session" -o "$demo/sheet.pdf"
    [ -s "$demo/sheet.pdf" ] && [ -s "$demo/keys.png" ] || fail "the package made no sheet or no picture"
    echo "the package runs: $(ls "$demo" | wc -l) files of the demo, a session checked, a sheet of $(wc -c <"$demo/sheet.pdf") bytes"
}

image
if command -v dpkg-deb >/dev/null 2>&1; then
    deb
    ls -s --block-size=M "$out"/*.deb
fi
[ "${1:-}" = --check ] && check
exit 0
