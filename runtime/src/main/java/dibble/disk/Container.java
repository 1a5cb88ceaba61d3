package dibble.disk;

import static dibble.text.CoreText.say;

import dibble.files.Damage;
import dibble.files.Form;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.files.SingleLineText;
import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipInputStream;

/**
 * The zip container of a session: the entries of its directory, each verified against the size and the checksum in the
 * directory. Nothing in it is trusted: unpacked bytes are counted while unpacking, and no entry name ever becomes a
 * path.
 *
 * @param entries by their names
 * @param damage the damage; empty if it is intact
 */
public record Container(Map<String, byte[]> entries, List<Damage> damage) {
    static final String SESSION = "session.json";

    static final int MAX_ENTRIES = 50_000;

    /** The most that entries that are none of ours may unpack to, all together: 64 MiB. */
    static final long MAX_UNKNOWN_BYTES = 64L << 20;

    /**
     * Reads a container to the extent that it is intact.
     *
     * @throws SessionFormatException if it is larger than a session may be, or has a name twice
     */
    public static Container read(Path path) throws IOException {
        try (ZipFile zip = new ZipFile(path.toFile())) {
            return read(zip);
        } catch (ZipException | EOFException | IllegalArgumentException e) {
            return readFromItsBeginning(path);
        }
    }

    private static Container read(ZipFile zip) throws IOException {
        Reading reading = new Reading();
        Set<String> names = new HashSet<>();
        Enumeration<? extends ZipEntry> all = zip.entries();
        while (all.hasMoreElements()) {
            ZipEntry entry = all.nextElement();
            reading.count();
            if (!names.add(entry.getName())) {
                throw new SessionFormatException(
                        say("container.appears-twice-in-the-file", SingleLineText.of(entry.getName())));
            }
            reading.take(zip, entry);
        }
        return new Container(reading.entries, reading.damage);
    }

    /** Reads a container without its directory, which is at its end: the file was cut off. */
    private static Container readFromItsBeginning(Path path) throws IOException {
        Reading reading = new Reading();
        reading.damage.add(Damage.CUT_OFF);
        try (InputStream in = Files.newInputStream(path);
                ZipInputStream zip = new ZipInputStream(in)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                reading.count();
                reading.entries.putIfAbsent(entry.getName(), reading.unpacked(zip, entry.getName()));
            }
        } catch (ZipException | EOFException | IllegalArgumentException e) {
            // Everything up to here is intact.
        }
        return new Container(reading.entries, reading.damage);
    }

    private static boolean isKnown(String name) {
        return name.equals(SESSION)
                || Form.TAKE_FILE.fits(name)
                || Form.TRACK_FILE.fits(name)
                || Form.PRINTS_FILE.fits(name);
    }

    /** Reads entries within the limits. */
    private static final class Reading {
        final Map<String, byte[]> entries = new LinkedHashMap<>();
        final List<Damage> damage = new ArrayList<>();
        private long left = SessionContent.MAX_BYTES;
        private long leftForForeign = MAX_UNKNOWN_BYTES;
        private int seen;

        void count() throws SessionFormatException {
            if (++seen > MAX_ENTRIES) {
                throw new SessionFormatException(say("container.more-than-entries-in-the", MAX_ENTRIES));
            }
        }

        void take(ZipFile zip, ZipEntry entry) throws IOException {
            try (InputStream in = zip.getInputStream(entry)) {
                byte[] bytes = unpacked(in, entry.getName());
                CRC32 sum = new CRC32();
                sum.update(bytes);
                if (bytes.length == entry.getSize() && sum.getValue() == entry.getCrc()) {
                    entries.put(entry.getName(), bytes);
                    return;
                }
            } catch (ZipException | EOFException e) {
                // It is named below.
            }
            damage.add(new Damage(entry.getName(), Damage.Kind.CHANGED));
        }

        byte[] unpacked(InputStream in, String name) throws IOException {
            boolean foreign = !isKnown(name);
            long most = name.equals(SESSION) ? SessionContent.MAX_JSON_BYTES : foreign ? leftForForeign : left;
            byte[] bytes = limited(in, name, most);
            left -= bytes.length;
            leftForForeign -= foreign ? bytes.length : 0;
            return bytes;
        }
    }

    /** The bytes of all of a stream, of which there may be only so many. */
    static byte[] limited(InputStream in, String name, long most) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] block = new byte[1 << 16];
        for (int n = in.read(block); n >= 0; n = in.read(block)) {
            if (out.size() + (long) n > most) {
                throw new SessionFormatException(say("common.is-larger-than-mib", SingleLineText.of(name), most >> 20));
            }
            out.write(block, 0, n);
        }
        return out.toByteArray();
    }
}
