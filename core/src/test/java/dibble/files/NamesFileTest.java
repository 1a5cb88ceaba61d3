package dibble.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.gear.BankSelect;
import dibble.gear.Instrument;
import dibble.gear.Sound;
import dibble.gear.SoundNames;
import dibble.gear.UnknownFields;
import dibble.midi.ShortMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.net.ServerSocket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class NamesFileTest {
    private final java.util.List<String> remarks = new java.util.ArrayList<>();

    private static SoundNames names(BankSelect by) {
        return new SoundNames(
                "Thistle & Sons",
                "Yarrow \"two\"",
                by,
                List.of(
                        new SoundNames.Bank(
                                "Warm",
                                List.of(0, 0),
                                List.of(
                                        new SoundNames.Program(0, "Warm strings", "A01"),
                                        new SoundNames.Program(9, "Lantern <bells>", "A10"))),
                        new SoundNames.Bank(
                                "Cold",
                                List.of(by == BankSelect.FINE ? 0 : 1, by == BankSelect.COARSE ? 0 : 2),
                                List.of(new SoundNames.Program(0, "Frost choir", "B01")))),
                Map.of(36, "Box", 38, "Lid"),
                Map.of(74, "Shutter"),
                UnknownFields.NONE);
    }

    private SoundNames read(String text) throws SessionFormatException {
        return NamesFile.read(text.getBytes(StandardCharsets.UTF_8), "Yarrow.midnam", remarks::add);
    }

    @ParameterizedTest
    @EnumSource(BankSelect.class)
    void aDocumentComesBackAsItWas(BankSelect by) throws SessionFormatException {
        byte[] written = NamesFile.midnam(names(by));
        assertThat(NamesFile.read(written, "x.midnam", remarks::add)).isEqualTo(names(by));
        assertThat(new String(written, StandardCharsets.UTF_8)).contains("<!DOCTYPE MIDINameDocument PUBLIC");
    }

    @Test
    void banksMayUseListsThatStandElsewhere() throws SessionFormatException {
        SoundNames read = read("""
                <MIDINameDocument><MasterDeviceNames><Manufacturer>Thistle</Manufacturer><Model>Y</Model>
                <ChannelNameSet Name="S"><PatchBank Name="One"><MIDICommands><ControlChange Control="32" Value="3"/>
                </MIDICommands><UsesPatchNameList Name="L"/></PatchBank></ChannelNameSet>
                <PatchNameList Name="L"><Patch Number="1" Name="First" ProgramChange="0"/><Patch Number="2" Name="Second"/>
                </PatchNameList></MasterDeviceNames></MIDINameDocument>""");
        assertThat(read.bankSelect()).isEqualTo(BankSelect.FINE);
        assertThat(read.program(List.of(0, 3), 1))
                .get()
                .extracting(SoundNames.Program::name)
                .isEqualTo("Second");
    }

    /** A module that hears one of the two controllers gets that one alone. */
    @Test
    void bankSelectDecidesWhatIsSent() {
        Sound sound = new Sound(List.of(1, 2), 5, null, null);
        Instrument module = Instrument.of("m", "Module", false, "out", List.of());
        assertThat(module.messages(sound, 0))
                .containsExactly(
                        ShortMessage.controller(0, 0, 1),
                        ShortMessage.controller(0, 32, 2),
                        ShortMessage.programChange(0, 5));
        assertThat(module.withNames(names(BankSelect.COARSE)).messages(sound, 0))
                .containsExactly(ShortMessage.controller(0, 0, 1), ShortMessage.programChange(0, 5));
        assertThat(module.withNames(names(BankSelect.FINE)).messages(sound, 0))
                .containsExactly(ShortMessage.controller(0, 32, 2), ShortMessage.programChange(0, 5));
    }

    @Test
    void plainListsAndTablesAreReadToo() throws SessionFormatException {
        SoundNames list = NamesFile.read("# ours\n0 Warm strings\n\n10: Frost".getBytes(), "Yarrow.txt", remarks::add);
        assertThat(list.model()).isEqualTo("Yarrow");
        assertThat(list.program(null, 10))
                .get()
                .extracting(SoundNames.Program::name)
                .isEqualTo("Frost");
        SoundNames fromOne = NamesFile.read("1 First\n128 Last".getBytes(), "x.txt", remarks::add);
        assertThat(fromOne.program(null, 127))
                .get()
                .extracting(SoundNames.Program::name)
                .isEqualTo("Last");
        SoundNames oneOfTwoGoesTo128 =
                NamesFile.read("bank,msb,program,name\nA,0,1,First\nB,1,128,Last\n".getBytes(), "x.csv", remarks::add);
        assertThat(oneOfTwoGoesTo128.program(List.of(0, 0), 0)).isPresent();
        SoundNames table = NamesFile.read(
                "bank,msb,lsb,program,name\nWarm,0,1,0,\"Strings, warm\"\nCold,1,0,0,Frost\n".getBytes(),
                "x.csv",
                remarks::add);
        assertThat(table.banks()).hasSize(2);
        assertThat(table.program(List.of(0, 1), 0))
                .get()
                .extracting(SoundNames.Program::name)
                .isEqualTo("Strings, warm");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "x.txt | nothing here | line 1: “nothing here”",
                "x.csv | 'program,name\n999,Too much' | row 2, column program: “999” (expected 0 to 128)",
                "x.csv | 'a,b\n1,2' | no columns program and name",
                "x.midnam | <html></html> | not a device name document",
                "x.midnam | <MIDINameDocument> | damaged",
                "x.midnam | <MIDINameDocument/> | no names in it"
            })
    void whatCannotBeReadIsSaidInOneLine(String name, String text, String message) {
        assertThatThrownBy(() -> NamesFile.read(text.getBytes(StandardCharsets.UTF_8), name, remarks::add))
                .isInstanceOf(SessionFormatException.class)
                .hasMessageContaining(message);
    }

    /** Neither a document type nor an entity is fetched, from a file or from a server. */
    @Test
    void nothingFromOutsideIsFetched(@TempDir Path folder) throws IOException {
        Path secret = Files.writeString(folder.resolve("secret.txt"), "a secret");
        try (ServerSocket server = new ServerSocket(0)) {
            server.setSoTimeout(1);
            String address = "http://localhost:" + server.getLocalPort() + "/x.dtd";
            for (String type : List.of(
                    "<!DOCTYPE MIDINameDocument SYSTEM \"" + address + "\">",
                    "<!DOCTYPE MIDINameDocument [<!ENTITY % out SYSTEM \"" + address + "\"> %out;]>",
                    "<!DOCTYPE MIDINameDocument [<!ENTITY it SYSTEM \"" + secret.toUri() + "\">]>",
                    "<!DOCTYPE MIDINameDocument [<!ENTITY a \"lol\"><!ENTITY it \"&a;&a;&a;\">]>")) {
                String text = type
                        + "<MIDINameDocument><MasterDeviceNames><Model>&it;</Model><ChannelNameSet><PatchBank Name=\"b\">"
                        + "<PatchNameList><Patch Name=\"p\" ProgramChange=\"0\"/></PatchNameList></PatchBank>"
                        + "</ChannelNameSet></MasterDeviceNames></MIDINameDocument>";
                try {
                    assertThat(read(text).model()).doesNotContain("secret", "lol");
                } catch (SessionFormatException e) {
                    assertThat(e.getMessage()).doesNotContain("secret");
                }
            }
            assertThatThrownBy(server::accept).isInstanceOf(SocketTimeoutException.class);
        }
    }

    @Property(tries = 200)
    void damagedFilesAreReadOrRefusedInOneLine(@ForAll long seed) {
        Random random = new Random(seed);
        boolean xml = random.nextInt(3) > 0;
        byte[] bytes = xml
                ? NamesFile.midnam(names(BankSelect.BOTH))
                : "bank,msb,lsb,program,name\nWarm,0,1,0,Strings\nCold,1,0,0,\"Frost\"\n"
                        .getBytes(StandardCharsets.UTF_8);
        for (int n = random.nextInt(6); n >= 0; n--) {
            int at = random.nextInt(bytes.length);
            switch (random.nextInt(3)) {
                case 0 -> bytes[at] = (byte) random.nextInt(256);
                case 1 -> bytes = Arrays.copyOf(bytes, Math.max(1, at));
                default -> bytes[at] = bytes[random.nextInt(bytes.length)];
            }
        }
        try {
            NamesFile.read(bytes, xml ? "x.midnam" : "x.csv", remarks::add);
        } catch (SessionFormatException e) {
            assertThat(e.getMessage()).isNotBlank().doesNotContain("\n").doesNotContain("Exception");
        }
    }

    private static String document(String... devices) {
        return "<?xml version=\"1.0\"?><MIDINameDocument>" + String.join("", devices) + "</MIDINameDocument>";
    }

    private static String device(String model, String inside) {
        return "<MasterDeviceNames><Manufacturer>Fen</Manufacturer><Model>" + model + "</Model>" + inside
                + "</MasterDeviceNames>";
    }

    private static String bank(String name) {
        return "<PatchBank Name=\"" + name + "\"><PatchNameList Name=\"l" + name
                + "\"><Patch Number=\"1\" Name=\"Frost\" ProgramChange=\"0\"/></PatchNameList></PatchBank>";
    }

    @Test
    void documentsInUtf16AreRead() throws SessionFormatException {
        String text = document(device("Yarrow", bank("A"))).replace("1.0\"?", "1.0\" encoding=\"UTF-16\"?");
        SoundNames names = NamesFile.read(text.getBytes(StandardCharsets.UTF_16), "x.midnam", remarks::add);
        assertThat(names.model()).isEqualTo("Yarrow");
        assertThat(names.count()).isEqualTo(1);
    }

    @Test
    void documentsInTheEncodingThatTheySayAreRead() throws SessionFormatException {
        String text = document(device("Gläser", bank("Öl"))).replace("1.0\"?", "1.0\" encoding=\"ISO-8859-1\"?");
        SoundNames names = NamesFile.read(text.getBytes(StandardCharsets.ISO_8859_1), "x.midnam", remarks::add);
        assertThat(names.model()).isEqualTo("Gläser");
        assertThat(names.banks().get(0).name()).isEqualTo("Öl");
    }

    @Test
    void documentsInNoEncodingAreRefusedAndNothingIsPrinted() {
        PrintStream before = System.err;
        ByteArrayOutputStream printed = new ByteArrayOutputStream();
        System.setErr(new PrintStream(printed, true, StandardCharsets.UTF_8));
        try {
            for (String text : List.of("<a\u00FF>", "<?xml version=\"1.0\"?><a>\u00FF</a>", "<a", "<a>&b;</a>")) {
                assertThatThrownBy(() ->
                                NamesFile.read(text.getBytes(StandardCharsets.ISO_8859_1), "x.midnam", remarks::add))
                        .isInstanceOf(SessionFormatException.class);
            }
        } finally {
            System.setErr(before);
        }
        assertThat(printed.toString(StandardCharsets.UTF_8)).isEmpty();
    }

    @Test
    void onlyTheFirstOfSeveralDevicesIsReadAndTheOthersAreTold() throws SessionFormatException {
        SoundNames names = read(document(device("Yarrow", bank("A")), device("Tansy", bank("B") + bank("C"))));
        assertThat(names.model()).isEqualTo("Yarrow");
        assertThat(names.banks()).extracting(SoundNames.Bank::name).containsExactly("A");
        assertThat(remarks).containsExactly("2 devices in the file, only the first was read");
    }

    @Test
    void patchesWithoutAPlaceAreTold() throws SessionFormatException {
        StringBuilder patches = new StringBuilder("<PatchBank Name=\"A\"><PatchNameList Name=\"l\">");
        for (int i = 0; i < 130; i++) {
            patches.append("<Patch Number=\"").append(i).append("\" Name=\"Frost\"/>");
        }
        SoundNames names = read(document(device("Yarrow", patches + "</PatchNameList></PatchBank>")));
        assertThat(names.count()).isEqualTo(128);
        assertThat(remarks).singleElement().asString().startsWith("2 patches were left out");
    }

    /** Banks that share one list take it each: a small document must not become a session that cannot be saved. */
    @Test
    void listsThatManyBanksShareAreLimitedTogether() {
        StringBuilder inside = new StringBuilder("<PatchNameList Name=\"l\">");
        for (int i = 0; i < 128; i++) {
            inside.append("<Patch Number=\"")
                    .append(i)
                    .append("\" Name=\"")
                    .append("x".repeat(200))
                    .append("\"/>");
        }
        inside.append("</PatchNameList>");
        for (int i = 0; i < 1000; i++) {
            inside.append("<PatchBank Name=\"b\"><UsesPatchNameList Name=\"l\"/></PatchBank>");
        }
        assertThatThrownBy(() -> read(document(device("Yarrow", inside.toString()))))
                .isInstanceOf(SessionFormatException.class)
                .hasMessageContaining("letters at most");
    }
}
