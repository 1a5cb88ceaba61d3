import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.cli.Main;
import dibble.text.Parts;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.spi.ToolProvider;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.asciidoctor.Asciidoctor;
import org.asciidoctor.Attributes;
import org.asciidoctor.Options;
import org.asciidoctor.SafeMode;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.codegen.docgen.manpage.ManPageGenerator;

/**
 * Makes an application that needs no Java and no Maven out of what {@code ./dibble} has built: on Linux an image and a
 * {@code .deb}, on macOS a {@code .dmg}, on Windows an {@code .msi}. The same source gives the same bytes. Called by
 * {@code ./dibble package}, with what it needs on the class path.
 */
class Package {
    private static final String CLI = "dibble-cli";
    private static final String JAVA_LICENCE = "GPL-2.0-with-classpath-exception";
    private static final String SUMMARY = "Assigns, splits and remaps MIDI channels and key zones";

    /** What is found by its name only: synthesizers, printers, encodings, how users write numbers. */
    private static final String FOUND_BY_NAME =
            "java.desktop,java.logging,java.management,java.naming,java.xml,jdk.unsupported,jdk.localedata,jdk.charsets,jdk.zipfs";

    private static final String MAINTAINER = "The founders of Dibble <founders@dibble.invalid>";

    /** What JavaFX, which comes as it is, is linked with or looks for; and the printers' library, which Java looks for. */
    private static final String JAVAFX_NEEDS = "libgtk-3-0 | libgtk-3-0t64, libgl1, libxtst6, libxxf86vm1, libcups2 | libcups2t64";

    private final Path home;
    private final Path lib;
    private final Path out;
    private final Path templates;
    private final String version;
    private final Instant time;

    private Package(Path home, Path lib) throws IOException {
        this.home = home;
        this.lib = lib;
        out = home.resolve("target/package");
        templates = home.resolve("tools/package");
        String pom = Files.readString(home.resolve("pom.xml"));
        version = value(pom, "revision");
        time = Instant.parse(value(pom, "project.build.outputTimestamp"));
    }

    public static void main(String[] args) throws Exception {
        try {
            new Package(Path.of(args[0]), Path.of(args[1])).make();
        } catch (Failed e) {
            System.err.println("dibble: " + e.getMessage());
            System.exit(2);
        }
    }

    private void make() throws IOException, InterruptedException {
        delete(out);
        Files.createDirectories(out);
        Path parts = Files.writeString(out.resolve("dibble.cdx.json"), parts());
        String system = System.getProperty("os.name").toLowerCase(Locale.ROOT);
        if (system.contains("linux")) {
            Path image = image();
            Files.copy(parts, image.resolve("share/parts.cdx.json"));
            still(image);
            if (found("dpkg-deb")) {
                deb(image);
            } else {
                System.err.println("dibble: no .deb, since dpkg-deb is missing");
            }
        } else {
            installer(system.contains("mac"));
        }
        sums();
    }

    // The image

    private Path image() throws IOException {
        Path input = input();
        Path runtime = runtime(input);
        List<String> arguments = jpackage(input, runtime);
        arguments.addAll(List.of("--type", "app-image", "--icon", icon(256).toString()));
        run("jpackage", arguments);
        delete(input);
        delete(runtime);
        Path image = out.resolve("Dibble");
        for (String launcher : List.of("Dibble", CLI)) {
            Path settings = image.resolve("lib/app/" + launcher + ".cfg");
            Files.writeString(settings, ordered(Files.readAllLines(settings)));
        }
        Path start = Files.createDirectories(image.resolve("lib/start"));
        for (String file : List.of("start.sh", "locale.sh", "share.sh", "commands")) {
            Files.copy(home.resolve("tools/start/" + file), start.resolve(file));
        }
        for (String of : List.of("window", "commands")) {
            Files.write(start.resolve(of + ".options"), options(of));
        }
        executable(Files.copy(templates.resolve("dibble"), image.resolve("bin/dibble")));
        Path share = Files.createDirectories(image.resolve("share"));
        Files.copy(home.resolve("LICENSE"), share.resolve("LICENSE"));
        manual(Files.createDirectories(share.resolve("man/man1")));
        completions(share);
        return image;
    }

    /** The jars, and beside them what JavaFX and JNA would otherwise unpack into the user's folder at the first start. */
    private Path input() throws IOException {
        Path input = Files.createDirectories(out.resolve("input"));
        List<Path> jars;
        try (Stream<Path> files = Files.list(lib)) {
            jars = files.filter(it -> it.toString().endsWith(".jar")).sorted().toList();
        }
        trust(jars);
        for (Path jar : jars) {
            Files.copy(jar, input.resolve(jar.getFileName()));
            String name = jar.getFileName().toString();
            if (name.startsWith("javafx-graphics")) {
                unpack(jar, Pattern.compile("[^/]+\\.(so|dylib|dll)"), input);
            } else if (name.startsWith("jna-")) {
                unpack(jar, Pattern.compile("com/sun/jna/" + jnaPlatform() + "/[^/]*jnidispatch\\.(so|jnilib|dll)"), input);
            }
        }
        return input;
    }

    /** Every library is the one that was noted when its version was chosen. */
    private void trust(List<Path> jars) throws IOException {
        Map<String, String> noted = new TreeMap<>();
        for (String line : Files.readAllLines(home.resolve(".mvn/checksums/checksums.sha256"))) {
            noted.put(line.substring(line.lastIndexOf('/') + 1), line.substring(0, line.indexOf(' ')));
        }
        for (Path jar : jars) {
            String name = jar.getFileName().toString();
            if (!name.startsWith("dibble-") && !sum(jar).equals(noted.get(name))) {
                throw new Failed(name + " has the SHA-256 checksum " + sum(jar) + " (expected "
                        + noted.getOrDefault(name, "one in .mvn/checksums/checksums.sha256") + ")");
            }
        }
    }

    private static String jnaPlatform() {
        String system = System.getProperty("os.name").toLowerCase(Locale.ROOT);
        String processor = System.getProperty("os.arch").replace("amd64", "x86-64").replace("x86_64", "x86-64");
        return (system.contains("linux") ? "linux" : system.contains("mac") ? "darwin" : "win32") + "-" + processor;
    }

    private static void unpack(Path jar, Pattern which, Path into) throws IOException {
        try (ZipFile zip = new ZipFile(jar.toFile())) {
            for (ZipEntry entry : zip.stream().toList()) {
                if (which.matcher(entry.getName()).matches()) {
                    try (InputStream in = zip.getInputStream(entry)) {
                        Files.copy(in, into.resolve(Path.of(entry.getName()).getFileName().toString()));
                    }
                }
            }
        }
    }

    private Path runtime(Path input) throws IOException {
        List<String> looked = new ArrayList<>(List.of("--print-module-deps", "--ignore-missing-deps", "--multi-release",
                "17", "--class-path", lib + "/*"));
        try (Stream<Path> files = Files.list(input)) {
            files.filter(it -> it.getFileName().toString().matches("dibble-.*\\.jar")).sorted()
                    .forEach(it -> looked.add(it.toString()));
        }
        List<String> lines = run("jdeps", looked).lines().filter(line -> !line.isBlank()).toList();
        Path runtime = out.resolve("runtime");
        run("jlink", List.of("--add-modules", lines.get(lines.size() - 1) + "," + FOUND_BY_NAME, "--strip-debug",
                "--no-man-pages", "--no-header-files", "--compress=2",
                // What that makes beforehand differs from run to run.
                "--disable-plugin", "generate-jli-classes", "--output", runtime.toString()));
        return runtime;
    }

    private List<String> jpackage(Path input, Path runtime) throws IOException {
        Path commands = out.resolve("commands.properties");
        Files.writeString(commands, "main-jar=dibble-cli.jar\nmain-class=dibble.cli.Main\nwin-console=true\njava-options="
                + String.join(" ", options("commands")) + "\n");
        List<String> arguments = new ArrayList<>(List.of("--name", "Dibble", "--app-version", version, "--dest",
                out.toString(), "--input", input.toString(), "--runtime-image", runtime.toString(), "--main-jar",
                "dibble-desktop.jar", "--main-class", "dibble.desktop.app.Main", "--add-launcher", CLI + "=" + commands));
        for (String option : options("window")) {
            arguments.addAll(List.of("--java-options", option));
        }
        arguments.addAll(List.of("--java-options", "-Djna.boot.library.path=$APPDIR"));
        return arguments;
    }

    private List<String> options(String of) throws IOException {
        List<String> options = new ArrayList<>(Files.readAllLines(home.resolve("tools/start/" + of + ".options")));
        options.removeIf(line -> line.isBlank() || line.startsWith("#"));
        if (Runtime.version().feature() >= 22) {
            options.add("--enable-native-access=ALL-UNNAMED");
        }
        return options;
    }

    /** The settings of a launcher with its class path in one order, whatever that of the folder was. */
    private static String ordered(List<String> lines) {
        List<String> paths = lines.stream().filter(line -> line.startsWith("app.classpath=")).sorted().toList();
        int[] next = {0};
        return lines.stream()
                .map(line -> line.startsWith("app.classpath=") ? paths.get(next[0]++) : line)
                .collect(Collectors.joining("\n", "", "\n"));
    }

    // What tells of it

    /** The parts of the window and of the commands as one CycloneDX list, with the Java that comes along. */
    private String parts() throws IOException {
        ObjectMapper mapper = new ObjectMapper();
        ObjectNode all = (ObjectNode) mapper.readTree(list("dibble-desktop.jar"));
        JsonNode commands = mapper.readTree(list("dibble-cli.jar"));
        add(all.withArray("components"), commands.get("components"), "bom-ref");
        add(all.withArray("dependencies"), commands.get("dependencies"), "ref");
        ObjectNode java = all.withArray("components").addObject();
        java.put("type", "platform").put("name", "OpenJDK").put("version", Runtime.version().toString());
        java.putArray("licenses").addObject().putObject("license").put("id", JAVA_LICENCE);
        return mapper.writerWithDefaultPrettyPrinter().writeValueAsString(all) + "\n";
    }

    private byte[] list(String jar) throws IOException {
        try (ZipFile zip = new ZipFile(lib.resolve(jar).toFile());
                InputStream in = zip.getInputStream(zip.getEntry("META-INF/sbom/parts.cdx.json"))) {
            return in.readAllBytes();
        }
    }

    private static void add(ArrayNode to, JsonNode from, String key) {
        Set<String> known = new HashSet<>();
        to.forEach(it -> known.add(it.path(key).asText()));
        from.forEach(it -> {
            if (known.add(it.path(key).asText())) {
                to.add(it);
            }
        });
    }

    private void manual(Path into) throws IOException {
        Path sources = Files.createDirectories(out.resolve("manual"));
        CommandSpec commands = Main.commands().getCommandSpec();
        ManPageGenerator.generateManPage(sources.toFile(), null, new boolean[0], false, commands);
        String date = time.toString().substring(0, 10);
        try (Asciidoctor pages = Asciidoctor.Factory.create();
                Stream<Path> files = Files.list(sources)) {
            for (Path source : files.sorted().toList()) {
                // Headings of the help end with a colon; those of a manual do not.
                String text = Files.readString(source).replaceAll("(?m)^(==.*):\\s*$", "$1")
                        .replace("== Synopsis\n\n", "== Synopsis\n\n[%hardbreaks]\n");
                String page = pages.convert(text, Options.builder().backend("manpage").standalone(true)
                        .safe(SafeMode.UNSAFE)
                        .attributes(Attributes.builder().attribute("docdate", date).attribute("manname-title", "NAME").build())
                        .build());
                String name = source.getFileName().toString().replace(".adoc", ".1.gz");
                Files.write(into.resolve(name), gzipped(page));
            }
        }
        delete(sources);
    }

    private static void completions(Path share) throws IOException {
        CommandLine line = Main.commands();
        line.addSubcommand("demo", CommandSpec.create());
        Path bash = Files.createDirectories(share.resolve("bash-completion/completions"));
        String script = AutoComplete.bash("dibble", line).replaceAll("(?m)^#(!| Generated| Date| Version).*\\n", "");
        Files.writeString(bash.resolve("dibble"), script);
        Path zsh = Files.createDirectories(share.resolve("zsh/vendor-completions"));
        Files.writeString(zsh.resolve("_dibble"), zsh(line));
        Path fish = Files.createDirectories(share.resolve("fish/vendor_completions.d"));
        Files.writeString(fish.resolve("dibble.fish"), fish(line));
    }

    private static String summary(CommandSpec command) {
        return command.usageMessage().description()[0].replaceFirst("\\.$", "");
    }

    /** Returns true if the value of an option is a file or a folder: its label says so. */
    private static boolean isFile(OptionSpec option) {
        return option.paramLabel().matches(".*(FILE|FOLDER|\\.).*");
    }

    private static String about(OptionSpec option) {
        return String.join(" ", option.description()).replace("%%", "%");
    }

    /** In single quotes, for zsh and fish. */
    private static String quoted(String text) {
        return "'" + text.replace("\\", "\\\\").replace("'", "\u2019") + "'";
    }

    private static String zsh(CommandLine line) {
        StringBuilder all = new StringBuilder("#compdef dibble\n_dibble() {\n    local -a commands\n    commands=(\n");
        line.getSubcommands().forEach((name, it) ->
                all.append("        ").append(quoted(name + ":" + summary(it.getCommandSpec()))).append('\n'));
        all.append("    )\n    if (( CURRENT == 2 )); then\n        _describe command commands\n        _files\n"
                + "        return\n    fi\n    case $words[2] in\n");
        line.getSubcommands().forEach((name, it) -> {
            all.append("    ").append(name).append(")\n        _arguments");
            for (OptionSpec option : it.getCommandSpec().options()) {
                String about = about(option).replace(":", "\\:").replace("[", "\\[").replace("]", "\\]");
                for (String sign : option.names()) {
                    boolean valued = option.arity().max() > 0;
                    String form = sign + (valued ? sign.startsWith("--") ? "=" : "+" : "") + "[" + about + "]"
                            + (valued ? ":" + option.paramLabel().replace(":", "") + ":" + (isFile(option) ? "_files" : "") : "");
                    all.append(" \\\n            ").append(quoted(form));
                }
            }
            all.append(" \\\n            '*:file:_files'\n        ;;\n");
        });
        return all.append("    esac\n}\n_dibble \"$@\"\n").toString();
    }

    private static String fish(CommandLine line) {
        StringBuilder all = new StringBuilder();
        line.getSubcommands().forEach((name, it) -> all.append("complete -c dibble -n __fish_use_subcommand -a ")
                .append(name).append(" -d ").append(quoted(summary(it.getCommandSpec()))).append('\n'));
        line.getSubcommands().forEach((name, it) -> it.getCommandSpec().options().forEach(option -> {
            all.append("complete -c dibble -n '__fish_seen_subcommand_from ").append(name).append('\'');
            for (String sign : option.names()) {
                all.append(sign.startsWith("--") ? " -l " : " -s ").append(sign.replaceFirst("^--?", ""));
            }
            all.append(option.arity().max() == 0 ? "" : isFile(option) ? " -r" : " -x").append(" -d ").append(quoted(about(option))).append('\n');
        }));
        return all.toString();
    }

    // The Debian package

    private void deb(Path image) throws IOException, InterruptedException {
        Path root = out.resolve("deb");
        Path place = Files.createDirectories(root.resolve("usr/lib")).resolve("dibble");
        command(List.of("cp", "-a", image.toString(), place.toString()), home);
        Path share = root.resolve("usr/share");
        // What a system looks for has its place there; the rest stays together.
        Files.move(place.resolve("share"), share);
        Path doc = Files.createDirectories(share.resolve("doc/dibble"));
        Files.move(share.resolve("LICENSE"), doc.resolve("LICENSE"));
        Files.move(share.resolve("parts.cdx.json"), doc.resolve("parts.cdx.json"));
        Files.writeString(doc.resolve("copyright"), copyright());
        Files.write(doc.resolve("changelog.gz"), gzipped(changelog()));
        copy("lintian-overrides", share.resolve("lintian/overrides/dibble"));
        Files.createSymbolicLink(Files.createDirectories(root.resolve("usr/bin")).resolve("dibble"),
                Path.of("../lib/dibble/bin/dibble"));
        copy("dibble.desktop", share.resolve("applications/dibble.desktop"));
        copy("mime.xml", share.resolve("mime/packages/dibble.xml"));
        write(share.resolve("metainfo/invalid.dibble.Dibble.metainfo.xml"), filled("metainfo.xml",
                Map.of("VERSION", version, "DATE", time.toString().substring(0, 10))));
        for (int size : List.of(16, 24, 32, 48, 64, 128, 256)) {
            write(share.resolve("icons/hicolor/" + size + "x" + size + "/apps/dibble.png"), Files.readAllBytes(icon(size)));
        }
        strip(root);
        String processor = command(List.of("dpkg", "--print-architecture"), home).strip();
        write(root.resolve("DEBIAN/control"), filled("control", Map.of("VERSION", version, "ARCHITECTURE", processor,
                "SIZE", String.valueOf(size(root) / 1024), "DEPENDS", libraries(root))));
        for (String script : List.of("postinst", "prerm")) {
            executable(Files.copy(templates.resolve(script), root.resolve("DEBIAN/" + script)));
        }
        Files.writeString(root.resolve("DEBIAN/md5sums"), md5sums(root));
        still(root);
        command(List.of("dpkg-deb", "--root-owner-group", "--build", root.toString(),
                out.resolve("dibble_" + version + "_" + processor + ".deb").toString()), home);
        delete(root);
    }

    /** Removes what only a debugger reads from programs and libraries, and makes no library a program. */
    private void strip(Path root) throws IOException, InterruptedException {
        if (!found("strip")) {
            throw new Failed("strip is missing: install binutils");
        }
        List<String> words = new ArrayList<>(List.of("strip", "--strip-unneeded", "--remove-section=.comment", "--remove-section=.note"));
        try (Stream<Path> files = Files.walk(root)) {
            for (Path file : files.filter(it -> Files.isRegularFile(it, LinkOption.NOFOLLOW_LINKS)).sorted().toList()) {
                if (isElf(file)) {
                    words.add(file.toString());
                    if (file.toString().endsWith(".so")) {
                        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r--r--"));
                    }
                }
            }
        }
        command(words, home);
    }

    private static boolean isElf(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return Arrays.equals(in.readNBytes(4), new byte[] {0x7F, 'E', 'L', 'F'});
        }
    }

    /** The entry of this version in CHANGELOG.md, in the form that Debian's tools read. */
    private String changelog() throws IOException {
        List<String> entries = new ArrayList<>();
        boolean current = false;
        for (String line : Files.readAllLines(home.resolve("CHANGELOG.md"))) {
            if (line.startsWith("## ")) {
                current = line.contains(version);
            } else if (current && line.startsWith("- ")) {
                entries.add("  * " + line.substring(2));
            } else if (current && !line.isBlank()) {
                entries.add("    " + line.strip());
            }
        }
        if (entries.isEmpty()) {
            throw new Failed("CHANGELOG.md has no entry for " + version);
        }
        String date = DateTimeFormatter.RFC_1123_DATE_TIME.format(time.atZone(ZoneOffset.UTC)).replace("GMT", "+0000");
        return "dibble (" + version + ") unstable; urgency=medium\n\n" + String.join("\n", entries) + "\n\n -- " + MAINTAINER + "  "
                + date.replaceFirst(" (\\d) ", " 0$1 ") + "\n";
    }

    /** The best compression, and a header that says so. */
    private static byte[] gzipped(String text) throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream gzip = new GZIPOutputStream(packed) {
            {
                def.setLevel(Deflater.BEST_COMPRESSION);
            }
        }) {
            gzip.write(text.getBytes(StandardCharsets.UTF_8));
        }
        byte[] bytes = packed.toByteArray();
        bytes[8] = 2;
        return bytes;
    }

    private static String md5sums(Path root) throws IOException {
        StringBuilder sums = new StringBuilder();
        try (Stream<Path> files = Files.walk(root)) {
            for (Path file : files.filter(it -> Files.isRegularFile(it, LinkOption.NOFOLLOW_LINKS)).sorted().toList()) {
                String name = root.relativize(file).toString();
                if (!name.startsWith("DEBIAN/")) {
                    sums.append(sum(file, "MD5")).append("  ").append(name).append('\n');
                }
            }
        }
        return sums.toString();
    }

    /** The packages whose libraries Java is linked with, as this system has them, and those that JavaFX is. */
    private String libraries(Path root) throws IOException, InterruptedException {
        if (!found("dpkg-shlibdeps")) {
            throw new Failed("dpkg-shlibdeps is missing: install dpkg-dev");
        }
        Path work = Files.createDirectories(out.resolve("libraries/debian")).getParent();
        Files.writeString(work.resolve("debian/control"), "Source: dibble\n\nPackage: dibble\nArchitecture: any\n");
        Path runtime = root.resolve("usr/lib/dibble/lib/runtime/lib");
        List<String> asked = new ArrayList<>(List.of("dpkg-shlibdeps", "-O", "--ignore-missing-info",
                "-l" + runtime, "-l" + runtime.resolve("server")));
        try (Stream<Path> files = Files.walk(runtime)) {
            files.filter(it -> it.toString().endsWith(".so")).sorted().forEach(it -> asked.add(it.toString()));
        }
        String said = command(asked, work);
        delete(work);
        Matcher depends = Pattern.compile("shlibs:Depends=(.*)").matcher(said);
        if (!depends.find()) {
            throw new Failed("dpkg-shlibdeps named no packages");
        }
        return depends.group(1) + ", " + JAVAFX_NEEDS;
    }

    private static String copyright() {
        StringBuilder all = new StringBuilder("Copyright 2026 The founders of Dibble\n\n"
                + "Dibble, under the Apache License 2.0: see LICENSE beside this file.\n"
                + "On Debian systems the Apache License 2.0, the GNU GPL 2 and the GNU LGPL 2.1 are in\n"
                + "/usr/share/common-licenses/Apache-2.0, /usr/share/common-licenses/GPL-2 and /usr/share/common-licenses/LGPL-2.1.\n"
                + "Its faces are under the SIL Open Font License 1.1.\n\nIt contains these parts (parts.cdx.json has the same list):\n\n");
        for (Parts.Part part : Parts.all()) {
            all.append(part.name() + " " + part.version() + ": " + String.join(" or ", part.licences()) + "\n");
        }
        all.append("OpenJDK " + Runtime.version() + ": " + JAVA_LICENCE + "\n");
        return all.toString();
    }

    // Windows and macOS: written with care, not tried

    private void installer(boolean mac) throws IOException {
        Path input = input();
        List<String> arguments = jpackage(input, runtime(input));
        arguments.addAll(List.of("--type", mac ? "dmg" : "msi", "--description", SUMMARY, "--license-file",
                home.resolve("LICENSE").toString(), "--icon", (mac ? icns() : ico()).toString()));
        for (String[] kind : new String[][] {{"dibble", "application/x-dibble", "Dibble session"},
                {"dibbleset", "application/x-dibble-set", "Dibble set"}, {"mid", "audio/midi", "Standard MIDI file"}}) {
            Path file = out.resolve(kind[0] + ".properties");
            Files.writeString(file, "extension=" + kind[0] + "\nmime-type=" + kind[1] + "\ndescription=" + kind[2] + "\n");
            arguments.addAll(List.of("--file-associations", file.toString()));
        }
        if (mac) {
            // There a version begins with 1 or more.
            arguments.set(arguments.indexOf("--app-version") + 1, version.replaceFirst("^0\\.", ""));
            arguments.addAll(List.of("--mac-package-identifier", "invalid.dibble.Dibble"));
        } else {
            arguments.addAll(List.of("--win-menu", "--win-shortcut-prompt", "--win-per-user-install",
                    "--win-upgrade-uuid", "5b1e6c5e-6c55-4d53-9d0a-5d1bb1e0d1b1"));
        }
        run("jpackage", arguments);
        delete(input);
        delete(out.resolve("runtime"));
    }

    private Path icon(int size) {
        return home.resolve("desktop/src/main/resources/dibble/desktop/icon/icon-" + size + ".png");
    }

    /** A Windows icon may hold a PNG as it is. */
    private Path ico() throws IOException {
        byte[] png = Files.readAllBytes(icon(256));
        ByteBuffer all = ByteBuffer.allocate(22 + png.length).order(ByteOrder.LITTLE_ENDIAN);
        all.putShort((short) 0).putShort((short) 1).putShort((short) 1);
        // 0 is 256 points wide and high; 32 bits a point.
        all.put(new byte[4]).putShort((short) 1).putShort((short) 32).putInt(png.length).putInt(22).put(png);
        return Files.write(out.resolve("dibble.ico"), all.array());
    }

    /** So may one of macOS. */
    private Path icns() throws IOException {
        byte[] png = Files.readAllBytes(icon(256));
        ByteBuffer all = ByteBuffer.allocate(16 + png.length);
        all.put("icns".getBytes(StandardCharsets.US_ASCII)).putInt(16 + png.length);
        all.put("ic08".getBytes(StandardCharsets.US_ASCII)).putInt(8 + png.length).put(png);
        return Files.write(out.resolve("dibble.icns"), all.array());
    }

    // Tools and files

    /** What went wrong, in one line. */
    private static final class Failed extends RuntimeException {
        private static final long serialVersionUID = 1;

        Failed(String line) {
            super(line);
        }
    }

    private static String value(String pom, String property) {
        Matcher found = Pattern.compile("<" + Pattern.quote(property) + ">([^<]+)</").matcher(pom);
        if (!found.find()) {
            throw new Failed("pom.xml has no " + property);
        }
        return found.group(1);
    }

    private static String run(String tool, List<String> arguments) {
        ToolProvider provider = ToolProvider.findFirst(tool)
                .orElseThrow(() -> new Failed(tool + " is missing: install a whole JDK, 17 or newer"));
        StringWriter said = new StringWriter();
        StringWriter complained = new StringWriter();
        int code = provider.run(new PrintWriter(said, true), new PrintWriter(complained, true), arguments.toArray(String[]::new));
        if (code != 0) {
            throw new Failed(tool + " failed: " + (said + " " + complained).strip().replaceAll("\\s+", " "));
        }
        return said.toString();
    }

    private String command(List<String> words, Path folder) throws IOException, InterruptedException {
        ProcessBuilder builder = new ProcessBuilder(words).directory(folder.toFile());
        builder.environment().put("SOURCE_DATE_EPOCH", String.valueOf(time.getEpochSecond()));
        Path complaints = Files.createTempFile("dibble-package", ".log");
        try {
            Process process = builder.redirectError(complaints.toFile()).start();
            String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (process.waitFor() != 0) {
                List<String> lines = Files.readAllLines(complaints);
                throw new Failed(words.get(0) + " failed: " + lines.stream().filter(it -> it.contains("error:"))
                        .findFirst().orElse(lines.isEmpty() ? "" : lines.get(lines.size() - 1)));
            }
            return said;
        } finally {
            Files.delete(complaints);
        }
    }

    private static boolean found(String program) {
        return Stream.of(System.getenv("PATH").split(":")).anyMatch(it -> Files.isExecutable(Path.of(it, program)));
    }

    private void copy(String template, Path to) throws IOException {
        write(to, Files.readAllBytes(templates.resolve(template)));
    }

    private String filled(String template, Map<String, String> values) throws IOException {
        String text = Files.readString(templates.resolve(template));
        for (Map.Entry<String, String> value : values.entrySet()) {
            text = text.replace("@" + value.getKey() + "@", value.getValue());
        }
        return text;
    }

    private static void write(Path to, String text) throws IOException {
        write(to, text.getBytes(StandardCharsets.UTF_8));
    }

    private static void write(Path to, byte[] bytes) throws IOException {
        Files.createDirectories(to.getParent());
        Files.write(to, bytes);
    }

    private static void executable(Path file) throws IOException {
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
    }

    private static long size(Path root) throws IOException {
        try (Stream<Path> files = Files.walk(root)) {
            return files.filter(Files::isRegularFile).mapToLong(it -> it.toFile().length()).sum();
        }
    }

    /** Every file has the time of the version, and nobody may write but its owner: the same source, the same bytes. */
    private void still(Path root) throws IOException {
        FileTime stamp = FileTime.from(time);
        List<Path> all;
        try (Stream<Path> files = Files.walk(root)) {
            all = files.filter(it -> !Files.isSymbolicLink(it)).sorted(Comparator.reverseOrder()).toList();
        }
        for (Path it : all) {
            boolean runs = Files.isDirectory(it) || Files.isExecutable(it);
            Files.setPosixFilePermissions(it, PosixFilePermissions.fromString(runs ? "rwxr-xr-x" : "rw-r--r--"));
            Files.setLastModifiedTime(it, stamp);
        }
    }

    /** The checksum of everything that was made, in the form that {@code sha256sum --check} reads. */
    private void sums() throws IOException {
        Map<String, String> sums = new TreeMap<>();
        try (Stream<Path> files = Files.walk(out)) {
            files.filter(Files::isRegularFile).forEach(it -> sums.put(out.relativize(it).toString(), sum(it)));
        }
        Files.writeString(out.resolve("SHA256SUMS"), sums.entrySet().stream()
                .map(it -> it.getValue() + "  " + it.getKey() + "\n").collect(Collectors.joining()));
        try (Stream<Path> files = Files.list(out)) {
            files.filter(Files::isRegularFile).filter(it -> it.toString().matches(".*\\.(deb|dmg|msi)"))
                    .forEach(it -> System.out.printf(Locale.ROOT, "%s, %.1f MB%n", it, it.toFile().length() / 1e6));
        }
    }

    private static String sum(Path file) {
        return sum(file, "SHA-256");
    }

    private static String sum(Path file, String algorithm) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance(algorithm).digest(Files.readAllBytes(file)));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (java.security.NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void delete(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path it : files.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(it);
                }
            }
        }
    }
}
