package dibble.files;

import static dibble.text.CoreText.say;

import dibble.gear.BankSelect;
import dibble.gear.SoundNames;
import dibble.gear.UnknownFields;
import dibble.text.PlainText;
import dibble.text.UserException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * A reader of device name documents (MIDNAM 1.0). It loads no document type and resolves no external entity. If there
 * are several devices, it reads the first and reports the others. Used once.
 */
final class NamesReader {
    private static final Pattern ENCODING =
            Pattern.compile("^.{0,3}<\\?xml[^>]*encoding\\s*=\\s*[\"']([A-Za-z][\\w.:-]*)");

    private static final int MAX_NAMES = 200_000;
    private static final int MAX_CHARACTERS = 200;

    /** Letters of all banks together, each with the list that it uses; a session has to be able to keep them. */
    private static final int MAX_ALL_LETTERS = 4_000_000;

    /** The bytes of a program in a session, in addition to its name. */
    private static final int OVERHEAD = 60;

    private final XMLStreamReader in;
    private final Map<String, List<SoundNames.Program>> lists = new HashMap<>();
    private final List<RawBank> banks = new ArrayList<>();
    private final Map<Integer, String> notes = new TreeMap<>();
    private final Map<Integer, String> controllers = new TreeMap<>();
    private String maker = "";
    private String model = "";
    private RawBank bank;
    private List<SoundNames.Program> list;
    private int names;
    private boolean isRight;
    private int devices;
    private int dropped;

    /** A bank as it is read: what selects it, and its list or the name of one that stands elsewhere. */
    private static final class RawBank {
        final String name;
        int coarse = -1;
        int fine = -1;
        String uses;
        List<SoundNames.Program> programs = new ArrayList<>();

        RawBank(String name) {
            this.name = name;
        }
    }

    NamesReader(String document) throws SessionFormatException {
        XMLInputFactory factory = XMLInputFactory.newInstance();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        // Its own would print.
        factory.setXMLReporter((message, type, about, location) -> {});
        factory.setXMLResolver((publicId, systemId, base, namespace) -> InputStream.nullInputStream());
        try {
            in = factory.createXMLStreamReader(new StringReader(document));
        } catch (XMLStreamException e) {
            throw refused(e);
        }
    }

    /** Decodes a document by its declared encoding. The parser would print to standard error on a decoding error. */
    static String decode(byte[] bytes) {
        Matcher said = ENCODING.matcher(new String(bytes, 0, Math.min(bytes.length, 200), StandardCharsets.ISO_8859_1));
        boolean isKnown = said.find() && Charset.isSupported(said.group(1));
        Charset charset = isKnown ? Charset.forName(said.group(1)) : StandardCharsets.UTF_8;
        return PlainText.decode(
                bytes, charset.canEncode() && "<".getBytes(charset).length == 1 ? charset : StandardCharsets.UTF_8);
    }

    private static SessionFormatException refused(XMLStreamException e) {
        int line = e.getLocation() == null ? 1 : Math.max(1, e.getLocation().getLineNumber());
        return new SessionFormatException(say("names-file.no-xml", line));
    }

    /** @param remarks receives the parts that were left out */
    SoundNames read(Consumer<String> remarks) throws SessionFormatException {
        try {
            while (in.hasNext()) {
                int event = in.next();
                if (event == XMLStreamConstants.START_ELEMENT) {
                    devices += isDevice(in.getLocalName()) ? 1 : 0;
                    if (devices <= 1) {
                        begin(in.getLocalName());
                    }
                } else if (event == XMLStreamConstants.END_ELEMENT) {
                    end(in.getLocalName());
                }
            }
        } catch (XMLStreamException e) {
            throw refused(e);
        } catch (RuntimeException e) {
            // The JDK's parser has such for some damages.
            if (e instanceof UserException) {
                throw e;
            }
            throw new SessionFormatException(
                    say("names-file.no-xml", in.getLocation().getLineNumber()));
        }
        if (!isRight) {
            throw new SessionFormatException(say("names-file.another-document"));
        }
        if (devices > 1) {
            remarks.accept(say("names-file.first-device", devices));
        }
        if (dropped > 0) {
            remarks.accept(say("names-file.dropped", dropped));
        }
        return names();
    }

    /** The elements that tell of one device each. */
    private static boolean isDevice(String element) {
        return element.equals("MasterDeviceNames")
                || element.equals("ExtendingDeviceNames")
                || element.equals("StandardDeviceMode");
    }

    private SoundNames names() throws SessionFormatException {
        boolean anyCoarse = banks.stream().anyMatch(it -> it.coarse >= 0);
        boolean anyFine = banks.stream().anyMatch(it -> it.fine >= 0);
        BankSelect by =
                anyCoarse && !anyFine ? BankSelect.COARSE : anyFine && !anyCoarse ? BankSelect.FINE : BankSelect.BOTH;
        List<SoundNames.Bank> all = new ArrayList<>();
        long letters = 0;
        for (RawBank raw : banks) {
            List<SoundNames.Program> programs =
                    raw.uses == null ? raw.programs : lists.getOrDefault(raw.uses, List.of());
            letters += raw.name.length();
            for (SoundNames.Program program : programs) {
                letters += OVERHEAD + program.name().length() + program.label().length();
            }
            if (letters > MAX_ALL_LETTERS) {
                throw new SessionFormatException(say("names-file.too-long", MAX_ALL_LETTERS));
            }
            all.add(new SoundNames.Bank(raw.name, List.of(Math.max(0, raw.coarse), Math.max(0, raw.fine)), programs));
        }
        return new SoundNames(maker, model, by, all, notes, controllers, UnknownFields.NONE);
    }

    private void begin(String element) throws XMLStreamException, SessionFormatException {
        switch (element) {
            case "MIDINameDocument" -> isRight = true;
            case "Manufacturer" ->
                maker = maker.isEmpty() ? cut(in.getElementText().strip()) : maker;
            case "Model" -> model = model.isEmpty() ? cut(in.getElementText().strip()) : model;
            case "PatchBank" -> {
                bank = new RawBank(attribute("Name"));
                banks.add(bank);
                count();
            }
            case "ControlChange" -> select();
            case "PatchNameList" -> {
                list = bank == null ? new ArrayList<>() : bank.programs;
                lists.putIfAbsent(attribute("Name"), list);
            }
            case "UsesPatchNameList" -> {
                if (bank != null) {
                    bank.uses = attribute("Name");
                }
            }
            case "Patch" -> patch();
            case "Note" -> named(notes);
            case "Control" -> {
                if (!"14bit".equals(attribute("Type")) && !attribute("Type").endsWith("RPN")) {
                    named(controllers);
                }
            }
            default -> {
                // Whatever else a document says is none of our business.
            }
        }
    }

    private void end(String element) {
        if (element.equals("PatchBank")) {
            bank = null;
        } else if (element.equals("PatchNameList")) {
            list = null;
        }
    }

    private void select() throws SessionFormatException {
        int value = number("Value");
        if (bank != null && list == null && attribute("Control").equals("0")) {
            bank.coarse = value;
        } else if (bank != null && list == null && attribute("Control").equals("32")) {
            bank.fine = value;
        }
    }

    private void patch() throws SessionFormatException {
        if (list == null) {
            return;
        }
        count();
        String label = attribute("Number");
        String change = attribute("ProgramChange");
        int program = change.isEmpty() ? list.size() : number("ProgramChange");
        if (program < 128 && list.size() < 128) {
            list.add(new SoundNames.Program(program, attribute("Name"), label));
        } else {
            dropped++;
        }
    }

    private void named(Map<Integer, String> into) throws SessionFormatException {
        count();
        into.putIfAbsent(number("Number"), attribute("Name"));
    }

    private void count() throws SessionFormatException {
        if (++names > MAX_NAMES || banks.size() > SoundNames.MAX_BANKS) {
            throw new SessionFormatException(say("names-file.too-many", MAX_NAMES));
        }
    }

    private String attribute(String name) {
        String value = in.getAttributeValue(null, name);
        return value == null ? "" : cut(value);
    }

    private static String cut(String text) {
        return text.length() > MAX_CHARACTERS ? text.substring(0, MAX_CHARACTERS) : text;
    }

    private int number(String name) throws SessionFormatException {
        String text = attribute(name).strip();
        if (!text.matches("\\d{1,3}") || Integer.parseInt(text) > 127) {
            throw new SessionFormatException(say(
                    "names-file.attribute",
                    in.getLocation().getLineNumber(),
                    in.getLocalName() + " " + name,
                    SingleLineText.of(text)));
        }
        return Integer.parseInt(text);
    }
}
