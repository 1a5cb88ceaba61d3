package dibble.disk;

import static dibble.text.CoreText.say;

import dibble.files.SessionContent;
import dibble.session.UnknownEntries;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Writes the entries of a container one by one, within the limits for reading. */
public final class ContainerWriter implements AutoCloseable {
    private final ZipOutputStream zip;
    private final Set<String> names = new HashSet<>();
    private long left = SessionContent.MAX_BYTES;

    /** Writes to a stream, which is closed with this. */
    public ContainerWriter(OutputStream out) {
        zip = new ZipOutputStream(out);
        // Takes are long and very regular: more effort makes them little smaller, and saving much slower.
        zip.setLevel(Deflater.BEST_SPEED);
    }

    void put(String name, byte[] bytes) throws IOException {
        put(name, bytes, SessionContent.MAX_BYTES);
    }

    void put(String name, byte[] bytes, long most) throws IOException {
        if (bytes.length > most) {
            throw tooLarge(name, most);
        }
        begin(name);
        spend(bytes.length);
        zip.write(bytes);
        zip.closeEntry();
    }

    /** Puts an entry that is made on this thread while another one packs it. */
    void put(String name, AtomicFile.Content content) throws IOException {
        begin(name);
        try (SerializerPipe packed = new SerializerPipe(new Counted(zip))) {
            content.to(packed);
        }
        zip.closeEntry();
    }

    void putAll(Map<String, byte[]> entries) throws IOException {
        for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
            put(entry.getKey(), entry.getValue());
        }
    }

    /** Writes unknown entries back; one with a name of ours is renamed. */
    public void putForeign(UnknownEntries foreign) throws IOException {
        for (String name : foreign.names()) {
            if (!names.contains(name)) {
                put(name, foreign.bytes(name));
            }
        }
    }

    private void begin(String name) throws IOException {
        names.add(name);
        if (names.size() > Container.MAX_ENTRIES) {
            throw new IOException(say("container-writer.the-session-has-more-than", Container.MAX_ENTRIES));
        }
        zip.putNextEntry(new ZipEntry(name));
    }

    private void spend(int bytes) throws IOException {
        left -= bytes;
        if (left < 0) {
            throw tooLarge(say("container-writer.the-session"), SessionContent.MAX_BYTES);
        }
    }

    private static IOException tooLarge(String what, long most) {
        return new IOException(say("container-writer.is-larger-than-mib-the", what, most >> 20));
    }

    /** Counts what an entry unpacks to. */
    private final class Counted extends FilterOutputStream {
        Counted(OutputStream out) {
            super(out);
        }

        @Override
        public void write(byte[] bytes, int from, int length) throws IOException {
            spend(length);
            out.write(bytes, from, length);
        }
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }
}
