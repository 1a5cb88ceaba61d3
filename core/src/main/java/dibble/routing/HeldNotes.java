package dibble.routing;

import dibble.midi.ShortMessage;
import java.util.Arrays;

/**
 * The held notes with their holders, and which of them sound. For every (port, channel, note), a <em>place</em>, the
 * output alternates strictly between on and off, and an off goes to the place of its on.
 *
 * <p>The holder of a note is a <em>key</em>: a voice (a live source, or a track in playback), a channel and a received
 * key. Each key has a chain of its held notes, in the order of their start. A send of a control map holds a single
 * place. Confined to its router; allocates only if more notes are held than ever before.
 */
final class HeldNotes {
    private static final int NONE = -1;
    private static final int FIRST_NODES = 4096;
    private static final int HOLDERS = 0xFFFF;
    private static final int SOUNDS = 1 << 16;
    private static final int INSTRUMENT = 17;

    private final OutputStage outlet;

    /** First node of each key's chain, by voice and then by {@code channel*128 + key}. */
    private int[][] firstHeld = {};

    private int[] nextNode = new int[FIRST_NODES];

    /** A place, and in the lowest bit whether key pressure goes there. */
    private int[] nodeHolds = new int[FIRST_NODES];

    private int freeNode = NONE;
    private int lastNode = NONE;

    /**
     * By place, {@code (port*16 + channel)*128 + note}: how many hold it (16 bits), whether it sounds, and for which
     * instrument. One number, since this is looked at most.
     */
    private int[] places = {};

    HeldNotes(OutputStage outlet) {
        this.outlet = outlet;
        addNodes(0);
    }

    static int place(int destination, int note) {
        return destination << 7 | note;
    }

    void openVoices(int count) {
        int old = firstHeld.length;
        if (count > old) {
            firstHeld = Arrays.copyOf(firstHeld, count);
            for (int voice = old; voice < count; voice++) {
                firstHeld[voice] = new int[16 * 128];
                Arrays.fill(firstHeld[voice], NONE);
            }
        }
    }

    int voices() {
        return firstHeld.length;
    }

    void openPorts(int count) {
        if (count * 16 * 128 > places.length) {
            places = Arrays.copyOf(places, count * 16 * 128);
        }
    }

    /** Ready for a key that was pressed and holds nothing yet. */
    void begin() {
        lastNode = NONE;
    }

    /** Adds a place to the held notes of the key that was pressed last. */
    void hold(int voice, int channel, int key, int place, boolean pressure) {
        int node = takeNode();
        nodeHolds[node] = place << 1 | (pressure ? 1 : 0);
        nextNode[node] = NONE;
        if (lastNode == NONE) {
            firstHeld[voice][channel << 7 | key] = node;
        } else {
            nextNode[lastNode] = node;
        }
        lastNode = node;
    }

    /** Sounds a place for one more holder, after ending the note that sounds there. */
    void sound(int place, int velocity, int instrument, long stamp) {
        stop(place, ShortMessage.DEFAULT_RELEASE, stamp);
        boolean taken = outlet.sendNote(stamp, place >>> 7, ShortMessage.noteOn(0, place & 0x7F, velocity), instrument);
        int holders = (places[place] & HOLDERS) + 1;
        places[place] = instrument << INSTRUMENT | (taken ? SOUNDS : 0) | holders;
    }

    /** Releases all that a key holds. */
    void release(int voice, int channel, int key, int velocity, long stamp) {
        int at = channel << 7 | key;
        int node = firstHeld[voice][at];
        if (node == NONE) {
            return;
        }
        firstHeld[voice][at] = NONE;
        while (node != NONE) {
            unhold(nodeHolds[node] >>> 1, velocity, stamp);
            node = freed(node);
        }
    }

    /** Takes one holder from a place, and ends it with the last. */
    void unhold(int place, int velocity, long stamp) {
        int left = places[place] - 1;
        places[place] = left;
        if ((left & HOLDERS) == 0) {
            stop(place, velocity, stamp);
        }
    }

    /** Ends the sounding note at a place; its holders still hold it. */
    void stop(int place, int velocity, long stamp) {
        int state = places[place];
        if ((state & SOUNDS) != 0) {
            places[place] = state & ~SOUNDS;
            outlet.sendNote(stamp, place >>> 7, ShortMessage.noteOff(0, place & 0x7F, velocity), state >>> INSTRUMENT);
        }
    }

    /** Ends all that sounds on a port, by channel and note. */
    void stopPort(int port, long stamp) {
        for (int place = port * 2048; place < Math.min((port + 1) * 2048, places.length); place++) {
            stop(place, ShortMessage.DEFAULT_RELEASE, stamp);
        }
    }

    /** Sends key pressure to the notes that a key holds, where it is passed. */
    void press(int voice, int channel, int key, int value, long stamp) {
        for (int node = firstHeld[voice][channel << 7 | key]; node != NONE; node = nextNode[node]) {
            int place = nodeHolds[node] >>> 1;
            if ((nodeHolds[node] & 1) != 0 && (places[place] & SOUNDS) != 0) {
                outlet.send(
                        stamp,
                        place >>> 7,
                        ShortMessage.of(ShortMessage.KEY_PRESSURE, 0, place & 0x7F, value),
                        places[place] >>> INSTRUMENT);
            }
        }
    }

    boolean isHeldAt(int voice, int channel, int destination) {
        for (int key = 0; key < 128; key++) {
            for (int node = firstHeld[voice][channel << 7 | key]; node != NONE; node = nextNode[node]) {
                if (nodeHolds[node] >>> 8 == destination) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Clears all held notes. */
    void forgetAll() {
        Arrays.fill(places, 0);
        for (int[] heads : firstHeld) {
            Arrays.fill(heads, NONE);
        }
        freeNode = NONE;
        addNodes(0);
    }

    /** Clears the held notes of a port. */
    void forgetPort(int port) {
        for (int[] heads : firstHeld) {
            for (int at = 0; at < heads.length; at++) {
                heads[at] = without(heads[at], port);
            }
        }
        Arrays.fill(places, port * 2048, (port + 1) * 2048, 0);
    }

    private int without(int first, int port) {
        int kept = NONE;
        int last = NONE;
        int node = first;
        while (node != NONE) {
            if (nodeHolds[node] >>> 12 == port) {
                node = freed(node);
                continue;
            }
            if (kept == NONE) {
                kept = node;
            } else {
                nextNode[last] = node;
            }
            last = node;
            node = nextNode[node];
        }
        if (last != NONE) {
            nextNode[last] = NONE;
        }
        return kept;
    }

    int soundingCount() {
        int count = 0;
        for (int state : places) {
            count += state >>> 16 & 1;
        }
        return count;
    }

    /** Gives a node back; returns the one that came after it. */
    private int freed(int node) {
        int next = nextNode[node];
        nextNode[node] = freeNode;
        freeNode = node;
        return next;
    }

    private int takeNode() {
        if (freeNode == NONE) {
            int old = nextNode.length;
            nextNode = Arrays.copyOf(nextNode, old * 2);
            nodeHolds = Arrays.copyOf(nodeHolds, old * 2);
            addNodes(old);
        }
        int node = freeNode;
        freeNode = nextNode[node];
        return node;
    }

    private void addNodes(int from) {
        for (int node = nextNode.length - 1; node >= from; node--) {
            nextNode[node] = freeNode;
            freeNode = node;
        }
    }
}
