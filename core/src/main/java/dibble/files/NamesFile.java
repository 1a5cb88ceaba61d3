package dibble.files;

import static dibble.text.CoreText.say;

import dibble.gear.BankSelect;
import dibble.gear.SoundNames;
import dibble.gear.UnknownFields;
import dibble.text.Csv;
import dibble.text.PlainText;
import dibble.text.UserException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/**
 * Names of sounds in files: device name documents (MIDNAM), tables of comma-separated values, and plain lists with a
 * number and a name on each line.
 */
public final class NamesFile {
    /** Larger ones are refused. */
    public static final int MAX_BYTES = 1 << 24;

    private static final Pattern LINE = Pattern.compile("\\s*(\\d{1,3})[\\s.:,;)\\-]+(\\S.*?)\\s*");

    /** As the standard says which kind of document it is; read by other programs, never by this one. */
    private static final String DOCTYPE =
            "<!DOCTYPE MIDINameDocument PUBLIC \"-//MIDI Manufacturers Association//DTD MIDINameDocument 1.0//EN\""
                    + " \"http://www.midi.org/dtds/MIDINameDocument10.dtd\">";

    private NamesFile() {}

    /**
     * Reads names from a file.
     *
     * @param remarks receives a phrase for each part of the file that was left out
     * @throws IOException with one line if the file has no readable names
     */
    public static SoundNames read(Path path, Consumer<String> remarks) throws IOException {
        byte[] bytes = WholeFile.read(
                path, MAX_BYTES, size -> new SessionFormatException(say("names-file.too-large", size, MAX_BYTES)));
        return read(bytes, path.getFileName().toString(), remarks);
    }

    /**
     * Reads names from a file of any supported kind.
     *
     * @param fileName the name for a list without a device name
     * @param remarks receives a phrase for each part that was left out
     * @throws SessionFormatException with one line if there are no readable names
     */
    public static SoundNames read(byte[] bytes, String fileName, Consumer<String> remarks)
            throws SessionFormatException {
        if (bytes.length > MAX_BYTES) {
            throw new SessionFormatException(say("names-file.too-large", bytes.length, MAX_BYTES));
        }
        String model = fileName.replaceFirst("\\.[^.]*$", "");
        try {
            // A document says itself how its letters are written.
            boolean isDocument = new String(bytes, 0, Math.min(bytes.length, 200), StandardCharsets.ISO_8859_1)
                    .replaceAll("[^\\x21-\\x7E]", "")
                    .startsWith("<");
            String text = isDocument ? "" : PlainText.decode(bytes);
            SoundNames names = isDocument
                    ? new NamesReader(NamesReader.decode(bytes)).read(remarks)
                    : fileName.toLowerCase(Locale.ROOT).endsWith(".csv") ? table(text, model) : list(text, model);
            if (names.count() == 0
                    && names.notes().isEmpty()
                    && names.controllers().isEmpty()) {
                throw new SessionFormatException(say("names-file.no-names"));
            }
            return names;
        } catch (UserException e) {
            throw new SessionFormatException(SingleLineText.of(e.getMessage()));
        }
    }

    private static SoundNames of(String model, List<SoundNames.Bank> banks) {
        return new SoundNames("", model, BankSelect.BOTH, banks, Map.of(), Map.of(), UnknownFields.NONE);
    }

    /** Lines such as {@code 0 Warm strings}; counted from 1 where they go to 128. */
    private static SoundNames list(String text, String model) throws SessionFormatException {
        Map<Integer, String> names = new TreeMap<>();
        int line = 0;
        for (String each : text.split("\\R", -1)) {
            line++;
            Matcher matcher = LINE.matcher(each);
            if (!each.isBlank() && !each.stripLeading().startsWith("#")) {
                if (!matcher.matches() || Integer.parseInt(matcher.group(1)) > 128) {
                    throw new SessionFormatException(say("names-file.line", line, shown(each)));
                }
                names.put(Integer.parseInt(matcher.group(1)), matcher.group(2));
            }
        }
        return of(model, List.of(new SoundNames.Bank("", List.of(0, 0), programs(names, first(List.of(names))))));
    }

    /** Returns the number of the first program: 1 if the programs of the file go up to 128, else 0. */
    private static int first(Collection<Map<Integer, String>> all) throws SessionFormatException {
        boolean fromOne = all.stream().anyMatch(names -> names.containsKey(128));
        if (fromOne && all.stream().anyMatch(names -> names.containsKey(0))) {
            throw new SessionFormatException(say("names-file.from-0-or-1"));
        }
        return fromOne ? 1 : 0;
    }

    private static List<SoundNames.Program> programs(Map<Integer, String> names, int first) {
        return names.entrySet().stream()
                .map(name -> new SoundNames.Program(name.getKey() - first, name.getValue(), ""))
                .toList();
    }

    private static String shown(String text) {
        String line = SingleLineText.of(text.strip());
        return line.length() > 40 ? line.substring(0, 40) + "…" : line;
    }

    /** Columns {@code bank, msb, lsb, program, name}, of which the last two are needed. */
    private static SoundNames table(String text, String model) throws SessionFormatException {
        record Key(String name, int coarse, int fine) {}
        Map<Key, Map<Integer, String>> banks = new LinkedHashMap<>();
        long read = 1;
        try (CSVParser rows = Csv.rows(text)) {
            if (!rows.getHeaderMap().containsKey("program")
                    || !rows.getHeaderMap().containsKey("name")) {
                throw new SessionFormatException(say("names-file.columns"));
            }
            for (CSVRecord row : rows) {
                read = row.getRecordNumber() + 1;
                Key key = new Key(text(row, "bank"), number(row, "msb", 0, 127), number(row, "lsb", 0, 127));
                banks.computeIfAbsent(key, it -> new TreeMap<>())
                        .put(number(row, "program", 0, 128), text(row, "name"));
            }
        } catch (IOException
                | UncheckedIOException
                | IllegalStateException
                | IllegalArgumentException
                | UserException e) {
            if (e instanceof SessionFormatException refused) {
                throw refused;
            }
            throw new SessionFormatException(say("names-file.row", read));
        }
        int first = first(banks.values());
        List<SoundNames.Bank> all = new ArrayList<>();
        for (Map.Entry<Key, Map<Integer, String>> bank : banks.entrySet()) {
            Key key = bank.getKey();
            all.add(new SoundNames.Bank(
                    key.name(), List.of(key.coarse(), key.fine()), programs(bank.getValue(), first)));
        }
        return of(model, all);
    }

    private static String text(CSVRecord row, String column) {
        return row.isMapped(column) && row.isSet(column) ? Csv.text(row.get(column)) : "";
    }

    private static int number(CSVRecord row, String column, int low, int high) throws SessionFormatException {
        String text = text(row, column);
        if (text.isEmpty() && !column.equals("program")) {
            return low;
        }
        if (!text.matches("\\d{1,3}") || Integer.parseInt(text) > high) {
            throw new SessionFormatException(
                    say("names-file.number", row.getRecordNumber() + 1, column, shown(text), low, high));
        }
        return Integer.parseInt(text);
    }

    /** Names as a device name document (MIDNAM 1.0), for other programs. */
    public static byte[] midnam(SoundNames names) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            XMLStreamWriter out = XMLOutputFactory.newInstance().createXMLStreamWriter(bytes, "UTF-8");
            out.writeStartDocument("UTF-8", "1.0");
            out.writeDTD(DOCTYPE);
            new MidnamWriter(out).write(names);
            out.writeEndDocument();
            out.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException("names that cannot be written to memory", e);
        }
        return bytes.toByteArray();
    }
}
