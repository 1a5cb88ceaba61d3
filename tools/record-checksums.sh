#!/bin/sh
# Notes the checksum of every library and plugin that a build fetches, after a version was changed: the list that Maven
# 3.9 and newer holds each of them against, and that a package is held against by any Maven. Read what changed in it.
set -eu
cd "$(dirname -- "$0")/.."
mvn --version | head -n 1 | grep -Eq ' (3\.9|[4-9])\.' || { echo "this needs Maven 3.9 or newer" >&2; exit 2; }
list=.mvn/checksums/checksums.sha256
record() {
    mvn -B -ntp -q -Daether.artifactResolver.postProcessor.trustedChecksums.record=true "$@"
}
rm -f "$list"
# One test of each module, for what tests and their coverage are run with.
record verify -Pcoverage -Dtest='TextsTest,MixerTest,ByteRingTest,SheetPaperTest,LauncherTest,NoNetworkTest' -Dsurefire.failIfNoSpecifiedTests=false
record -Dmaven.test.skip -pl testing,core,runtime,sound,jack,paper,presentation,cli,desktop,fuzzing package dependency:copy-dependencies -DincludeScope=runtime \
    -DoutputDirectory=target/recorded
record -f tools/package/pom.xml dependency:copy-dependencies "-DoutputDirectory=$PWD/target/recorded-tools"
record -f tools/fuzzing/pom.xml dependency:copy-dependencies "-DoutputDirectory=$PWD/target/recorded-tools"
record spotless:apply clean
# What other systems have in place of ours.
version=$(sed -n 's|.*<javafx.version>\(.*\)</.*|\1|p' pom.xml)
for part in base graphics controls swing; do
    for system in linux linux-aarch64 mac mac-aarch64 win; do
        record -N dependency:get -Dtransitive=false "-Dartifact=org.openjfx:javafx-$part:$version:jar:$system"
    done
done
# Our own are built, not fetched.
grep -v ' dibble/' "$list" | sort -k 2 >"$list.sorted"
mv "$list.sorted" "$list"
rm -f "$list.bak"
