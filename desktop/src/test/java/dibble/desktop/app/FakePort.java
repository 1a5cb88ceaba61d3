package dibble.desktop.app;

import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.IntConsumer;

/** An instrument's port that keeps what it gets. */
final class FakePort implements OutputPort {
    final List<Integer> messages = new CopyOnWriteArrayList<>();

    /** What its device does with what it gets. */
    volatile IntConsumer echo = message -> {};

    @Override
    public String name() {
        return "fake";
    }

    @Override
    public void send(int message, long stamp) {
        messages.add(message);
        echo.accept(message);
    }

    /** The note-ons that arrived, as {@code channel:note} with channels from 1. */
    List<String> notes() {
        return messages.stream()
                .filter(ShortMessage::startsNote)
                .map(message -> ShortMessage.channel(message) + 1 + ":" + ShortMessage.data1(message))
                .toList();
    }
}
