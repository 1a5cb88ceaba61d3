package dibble.journals;

import dibble.testing.disk.DiskWatch;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;

/**
 * Logs all changes to a disk, and computes states that a power cut could leave. Forced writes survive; a later write may be lost, torn or whole. Entries of a forced folder survive; later entries may or may not, in their order.
 */
final class WriteLog implements DiskWatch {
    private sealed interface Step {}

    private record Linked(Path path, int node) implements Step {}

    private record MadeFolder(Path path) implements Step {}

    private record Wrote(int node, long at, byte[] bytes) implements Step {}

    private record Forced(Path path, int node) implements Step {}

    private record Moved(Path from, Path to, int node) implements Step {}

    private record Deleted(Path path) implements Step {}

    private final List<Step> steps = new ArrayList<>();
    private final Map<Path, Integer> nodes = new HashMap<>();
    private int nextNode;

    /** Returns how many steps there were so far. */
    synchronized int size() {
        return steps.size();
    }

    /** Returns whether a file was forced after all that was written into it. */
    synchronized boolean isForced(Path file) {
        int node = nodes.get(Path.of(file.toString()));
        boolean isForced = false;
        for (Step step : steps) {
            if (step instanceof Forced forced && forced.node == node) {
                isForced = true;
            } else if (step instanceof Wrote wrote && wrote.node == node) {
                isForced = false;
            }
        }
        return isForced;
    }

    @Override
    public void call(Path path) {}

    @Override
    public synchronized void made(Path file) {
        nodes.put(file, ++nextNode);
        steps.add(new Linked(file, nextNode));
    }

    @Override
    public synchronized void madeFolder(Path folder) {
        steps.add(new MadeFolder(folder));
    }

    @Override
    public synchronized int writes(Path file, long at, byte[] bytes) {
        steps.add(new Wrote(nodes.get(file), at, bytes));
        return bytes.length;
    }

    @Override
    public synchronized void forces(Path path) {
        steps.add(new Forced(path, nodes.getOrDefault(path, 0)));
    }

    @Override
    public synchronized void moves(Path from, Path to) {
        int node = nodes.remove(from);
        nodes.put(to, node);
        steps.add(new Moved(from, to, node));
    }

    @Override
    public synchronized void deletes(Path path) {
        nodes.remove(path);
        steps.add(new Deleted(path));
    }

    /**
     * Writes what may be left after a power cut.
     *
     * @param count how many steps had been done
     * @param root the folder that all was in
     * @param to where it is written
     */
    synchronized void leave(int count, Path root, Path to, Random random) throws IOException {
        Map<Integer, byte[]> contents = contents(count, random);
        Set<Path> folders = new HashSet<>(Set.of(root));
        Map<Path, Integer> files = new TreeMap<>();
        for (int i = 0; i < count; i++) {
            Step step = steps.get(i);
            Path path = named(step);
            if (path == null || !isForced(path.getParent(), i, count) && random.nextBoolean()) {
                continue;
            }
            if (step instanceof MadeFolder) {
                folders.add(path);
            } else if (step instanceof Linked linked) {
                files.put(path, linked.node);
            } else if (step instanceof Moved moved) {
                files.remove(moved.from);
                files.put(moved.to, moved.node);
            } else {
                files.remove(path);
                folders.remove(path);
            }
        }
        Files.createDirectories(to);
        for (Path folder : folders.stream().sorted().toList()) {
            if (!folder.equals(root) && Files.isDirectory(to.resolve(root.relativize(folder.getParent())))) {
                Files.createDirectory(to.resolve(root.relativize(folder)));
            }
        }
        for (Map.Entry<Path, Integer> file : files.entrySet()) {
            Path there = to.resolve(root.relativize(file.getKey()));
            if (Files.isDirectory(there.getParent())) {
                Files.write(there, contents.getOrDefault(file.getValue(), new byte[0]));
            }
        }
    }

    private static Path named(Step step) {
        if (step instanceof Linked linked) {
            return linked.path;
        }
        if (step instanceof MadeFolder made) {
            return made.path;
        }
        if (step instanceof Moved moved) {
            return moved.to;
        }
        return step instanceof Deleted deleted ? deleted.path : null;
    }

    private boolean isForced(Path folder, int from, int count) {
        for (int i = from + 1; i < count; i++) {
            if (steps.get(i) instanceof Forced forced && forced.path.equals(folder)) {
                return true;
            }
        }
        return false;
    }

    private Map<Integer, byte[]> contents(int count, Random random) {
        Map<Integer, Integer> forcedAt = new HashMap<>();
        for (int i = 0; i < count; i++) {
            if (steps.get(i) instanceof Forced forced && forced.node > 0) {
                forcedAt.put(forced.node, i);
            }
        }
        Map<Integer, byte[]> contents = new HashMap<>();
        for (int i = 0; i < count; i++) {
            if (steps.get(i) instanceof Wrote wrote) {
                boolean isSafe = i < forcedAt.getOrDefault(wrote.node, -1);
                int length = isSafe
                        ? wrote.bytes.length
                        : switch (random.nextInt(3)) {
                            case 0 -> 0;
                            case 1 -> random.nextInt(wrote.bytes.length + 1);
                            default -> wrote.bytes.length;
                        };
                if (length > 0) {
                    int at = (int) wrote.at;
                    byte[] before = contents.getOrDefault(wrote.node, new byte[0]);
                    byte[] both = Arrays.copyOf(before, Math.max(before.length, at + length));
                    System.arraycopy(wrote.bytes, 0, both, at, length);
                    contents.put(wrote.node, both);
                }
            }
        }
        return contents;
    }
}
