package dibble.user;

import static dibble.text.CoreText.say;

import dibble.disk.AtomicFile;
import dibble.files.SessionFormatException;
import dibble.files.ShelfFile;
import dibble.files.WholeFile;
import dibble.gear.Ids;
import dibble.session.ShelfItem;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** The gear shelf: the user's items, one file each in the user's folder, and the shipped items. */
public final class GearShelf {
    private static final int MAX_BYTES = 1 << 24;
    private static final String ENDING = ".json";
    private static final List<String> SHIPPED = List.of(
            "stage-keyboard", "manuals-and-pedals", "pads", "breath-and-pedals", "sequencer", "sound-module", "kit");

    private final Path folder;

    /** @param userFolder the folder of all that is the user's */
    public GearShelf(Path userFolder) {
        folder = userFolder.resolve("shelf");
    }

    /**
     * An item on the shelf.
     *
     * @param file the file that it is kept in, or null for one that ships with Dibble
     */
    public record Kept(ShelfItem item, Path file) {}

    /**
     * The content of the shelf.
     *
     * @param kept the user's items by their names, then the shipped ones
     * @param damaged a line for each file that could not be read
     */
    public record Contents(List<Kept> kept, List<String> damaged) {}

    /** Reads the present content. */
    public Contents contents() {
        List<Kept> kept = new ArrayList<>();
        List<String> damaged = new ArrayList<>();
        for (Path file : files(damaged)) {
            try {
                kept.add(new Kept(
                        ShelfFile.read(
                                WholeFile.read(
                                        file,
                                        MAX_BYTES,
                                        size -> new SessionFormatException(
                                                say("gear-shelf.too-large", size, MAX_BYTES))),
                                file.getFileName().toString()),
                        file));
            } catch (SessionFormatException e) {
                damaged.add(e.getMessage());
            } catch (IOException e) {
                damaged.add(say("gear-shelf.could-not-be-read", file.getFileName(), e.getMessage()));
            }
        }
        kept.sort(java.util.Comparator.comparing(it -> it.item().name(), String.CASE_INSENSITIVE_ORDER));
        SHIPPED.forEach(name -> kept.add(new Kept(shipped(name), null)));
        return new Contents(kept, damaged);
    }

    private List<Path> files(List<String> damaged) {
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(file -> file.toString().endsWith(ENDING))
                    .sorted()
                    .toList();
        } catch (NoSuchFileException e) {
            return List.of();
        } catch (IOException e) {
            damaged.add(say("gear-shelf.the-folder-could-not-be", folder, e.getMessage()));
            return List.of();
        }
    }

    private static ShelfItem shipped(String name) {
        String file = name + ENDING;
        try (InputStream in = GearShelf.class.getResourceAsStream("shelf/" + file)) {
            return ShelfFile.read(in.readAllBytes(), file);
        } catch (IOException e) {
            throw new UncheckedIOException("an item that ships with Dibble", e);
        }
    }

    /** Saves an item in a separate file. */
    public void keep(ShelfItem item) throws IOException {
        AtomicFile.makeFolder(folder);
        String id = Ids.fresh(item.name(), taken -> Files.exists(folder.resolve(taken + ENDING)));
        AtomicFile.write(folder.resolve(id + ENDING), ShelfFile.write(item));
    }

    /** Takes an item of the user's off the shelf. */
    public void remove(Kept kept) throws IOException {
        Files.deleteIfExists(kept.file());
    }
}
