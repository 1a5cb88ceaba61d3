package dibble.user;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.databind.json.JsonMapper;
import dibble.disk.AtomicFile;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Data that Dibble remembers automatically from one run to the next. The user decided none of it, and its loss does no
 * harm.
 *
 * @param recentFiles sessions that were opened or saved, the last one first
 * @param lastFolder the folder of the last file; null before the first
 * @param window the place of the window; null before the first run
 * @param view the last view; null before the first run
 * @param sizes widths of panels by their id, in pixels
 * @param welcomed whether the first five minutes were offered
 */
@JsonIgnoreProperties(ignoreUnknown = true)
@RecordBuilder
public record Memory(
        List<String> recentFiles,
        String lastFolder,
        Place window,
        String view,
        Map<String, Double> sizes,
        boolean welcomed)
        implements MemoryBuilder.With {
    /** Before the first run. */
    public static final Memory NONE = new Memory(List.of(), null, null, null, Map.of(), false);

    private static final String FILE = "memory.json";
    private static final int MAX_RECENT = 10;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /**
     * The place of a window, in pixels of the screens.
     *
     * @param maximized whether it fills its screen; the rest is its restored place
     */
    public record Place(double x, double y, double width, double height, boolean maximized) {}

    public Memory {
        recentFiles = recentFiles == null ? List.of() : List.copyOf(recentFiles);
        sizes = sizes == null ? Map.of() : Map.copyOf(sizes);
    }

    /** Reads the memory in a folder; empty if it cannot be read. */
    public static Memory read(Path folder) {
        try {
            Path file = folder.resolve(FILE);
            Memory read = Files.exists(file) ? JSON.readValue(UserFolder.bytes(file), Memory.class) : null;
            return read == null ? NONE : read;
        } catch (IOException | IllegalArgumentException | UserException | NullPointerException e) {
            return NONE;
        }
    }

    /** Writes it into a folder, which is made where it is not there. */
    public void write(Path folder) throws IOException {
        AtomicFile.makeFolder(folder);
        AtomicFile.write(
                folder.resolve(FILE), JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(this));
    }

    /** The sessions that were opened or saved, the last one first; those that are not there any more are left out. */
    @JsonIgnore
    public List<Path> recent() {
        List<Path> paths = new ArrayList<>();
        for (String name : recentFiles) {
            try {
                Path path = Path.of(name);
                if (Files.isRegularFile(path)) {
                    paths.add(path);
                }
            } catch (InvalidPathException e) {
                // A file of another system: it is not there.
            }
        }
        return paths;
    }

    /** A session was opened or saved. */
    public Memory withRecent(Path file) {
        Path absolute = file.toAbsolutePath().normalize();
        List<String> files = new ArrayList<>(recentFiles);
        files.remove(absolute.toString());
        files.add(0, absolute.toString());
        Path folder = absolute.getParent();
        return with().recentFiles(files.subList(0, Math.min(MAX_RECENT, files.size())))
                .lastFolder(folder == null ? lastFolder : folder.toString())
                .build();
    }

    /** A file was read or written in a folder. */
    public Memory withFolder(Path folder) {
        return withLastFolder(folder.toAbsolutePath().normalize().toString());
    }

    /** The same with the size of a panel. */
    public Memory withSize(String panel, double size) {
        Map<String, Double> more = new LinkedHashMap<>(sizes);
        more.put(panel, size);
        return withSizes(more);
    }
}
