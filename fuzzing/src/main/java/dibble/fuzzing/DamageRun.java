package dibble.fuzzing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/**
 * Damages inputs that are in order, at random, and has every {@link Target} read them. A failing target is a defect, and so is an input that takes more than five seconds. Run by {@code ./dibble bench damage [CASES [SEED]]}; each defect's
 * input is kept.
 */
public final class DamageRun {
    private static final long MAX_SECONDS = 5;

    private final Map<Target, List<byte[]>> seeds = new EnumMap<>(Target.class);
    private final Map<Target, int[]> counts = new EnumMap<>(Target.class);
    private ExecutorService worker = Executors.newSingleThreadExecutor();
    private int defects;
    private long slowest;

    private DamageRun() throws IOException {
        for (Target target : Target.values()) {
            seeds.put(target, target.seeds());
            counts.put(target, new int[2]);
        }
    }

    /** @param args how many cases, and the seed of the first */
    public static void main(String[] args) throws IOException {
        int cases = args.length > 0 ? Integer.parseInt(args[0]) : 100_000;
        long seed = args.length > 1 ? Long.parseLong(args[1]) : 1;
        System.exit(new DamageRun().run(cases, seed) == 0 ? 0 : 1);
    }

    /** Returns a damaged input of a target. */
    static byte[] damaged(Target target, List<byte[]> seeds, Random random) throws IOException {
        byte[] whole = seeds.get(random.nextInt(seeds.size()));
        Damage damage = new Damage(random);
        boolean means = random.nextBoolean();
        return switch (target) {
            case SESSION, SET, SHELF, SETTINGS -> means ? damage.json(whole) : damage.bytes(whole);
            case CONTAINER -> means ? damage.container(whole) : damage.bytes(whole);
            case TAKE -> means ? damage.lines(whole) : damage.bytes(whole);
            case COMMANDS -> whole[0] == '{' ? damage.json(whole) : damage.bytes(whole);
            default -> damage.bytes(whole);
        };
    }

    private int run(int cases, long seed) throws IOException {
        Target[] targets = Target.values();
        for (int i = 0; i < cases; i++) {
            Target target = targets[i % targets.length];
            byte[] input = damaged(target, seeds.get(target), new Random(seed + i));
            counts.get(target)[one(target, input, seed + i) ? 1 : 0]++;
        }
        worker.shutdown();
        counts.forEach(
                (target, count) -> System.out.printf("%-20s %7d read, %7d refused%n", target.id(), count[1], count[0]));
        System.out.printf(
                "%d cases, slowest %d ms, heap of %d MiB: %d defects%n",
                cases, slowest, Runtime.getRuntime().maxMemory() >> 20, defects);
        return defects;
    }

    /** Returns whether the input was read. */
    private boolean one(Target target, byte[] input, long seed) throws IOException {
        long started = System.currentTimeMillis();
        Future<Boolean> reading = worker.submit(() -> target.run(input));
        try {
            boolean isRead = reading.get(MAX_SECONDS, TimeUnit.SECONDS);
            slowest = Math.max(slowest, System.currentTimeMillis() - started);
            return isRead;
        } catch (TimeoutException e) {
            worker.shutdownNow();
            worker = Executors.newSingleThreadExecutor();
            defect(target, input, seed, "not done within " + MAX_SECONDS + " s");
        } catch (ExecutionException e) {
            defect(target, input, seed, e.getCause().toString());
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        return false;
    }

    private void defect(Target target, byte[] input, long seed, String what) throws IOException {
        defects++;
        Path kept = Files.createDirectories(Path.of("target", "damage")).resolve(seed + "-" + target.id());
        Files.write(kept, input);
        System.out.println("defect, " + kept + ": " + what.lines().findFirst().orElse(""));
    }
}
