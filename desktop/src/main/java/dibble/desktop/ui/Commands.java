package dibble.desktop.ui;

import dibble.presentation.Command;
import dibble.presentation.Subscription;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** The commands of the window in one table, from which menus, tooltips, keys and the overview of keys are made. */
public final class Commands {
    /** Keys that edit text together with the shortcut key. */
    private static final Set<KeyCode> TEXT_KEYS = EnumSet.of(
            KeyCode.Z,
            KeyCode.Y,
            KeyCode.X,
            KeyCode.C,
            KeyCode.V,
            KeyCode.A,
            KeyCode.LEFT,
            KeyCode.RIGHT,
            KeyCode.BACK_SPACE,
            KeyCode.DELETE,
            KeyCode.HOME,
            KeyCode.END);

    private final List<Command> all = new ArrayList<>();
    private List<Command> ofView = List.of();

    /** Keys that are down; the system sends their presses again and again. */
    private final Set<KeyCode> down = EnumSet.noneOf(KeyCode.class);

    private boolean isRepeated;
    private boolean french;

    /** The button that the pointer has pressed last; null for none, or where the keyboard was used since. */
    private Node clicked;

    /** Adds what only the shown view can do, before the others, until the subscription ends. */
    public Subscription addOfView(List<Command> commands) {
        ofView = commands;
        return add(commands).and(() -> ofView = List.of());
    }

    /** Returns the commands of the visible view. */
    public List<Command> ofView() {
        return ofView;
    }

    /** Adds commands before the others, until the subscription ends: where two have a key and both apply, the later has it. */
    public Subscription add(List<Command> commands) {
        all.addAll(0, commands);
        return () -> all.removeAll(commands);
    }

    /** All of them, in their order. */
    public List<Command> all() {
        return List.copyOf(all);
    }

    /** The command of an id, where there is one now. */
    public Optional<Command> find(String id) {
        return first(command -> command.id().equals(id));
    }

    private Optional<Command> first(Predicate<Command> meant) {
        return all.stream().filter(meant).findFirst();
    }

    /** @throws IllegalArgumentException where there is none of this id */
    public Command get(String id) {
        return find(id).orElseThrow(() -> new IllegalArgumentException("command \"" + id + "\" (expected one of "
                + all.stream().map(Command::id).toList() + ")"));
    }

    /** Receives every key event before the nodes, to distinguish a held key from a new press. */
    public void follow(KeyEvent event) {
        if (event.getEventType() == KeyEvent.KEY_PRESSED) {
            isRepeated = !down.add(event.getCode());
        } else if (event.getEventType() == KeyEvent.KEY_RELEASED) {
            down.remove(event.getCode());
        }
    }

    /** Forgets the held keys, since another window receives their releases. */
    public void forgetKeys() {
        down.clear();
    }

    /**
     * Runs the command of a key that the focused node has not handled.
     *
     * @param focused the focused node, or null
     * @return whether there was a command
     */
    public boolean take(KeyEvent event, Node focused) {
        return take(
                event,
                focused instanceof TextInputControl,
                focused instanceof ButtonBase || focused instanceof ComboBox);
    }

    /**
     * @param types whether the focused node is a text field
     * @param presses whether Space presses it
     */
    boolean take(KeyEvent event, boolean types, boolean presses) {
        if (types && isOfText(event)) {
            // Taken by the field, even where it has nothing to undo: menus must not see it either.
            return true;
        }
        Predicate<Command> free = command -> !(types && command.isTyped()) && !(presses && command.isSpace());
        return run(free.and(command -> KeyCharacters.isPressed(command, event)), isRepeated)
                || run(free.and(command -> KeyCharacters.isWritten(command, event, french)), isRepeated);
    }

    private static boolean isOfText(KeyEvent event) {
        return event.isShortcutDown() && !event.isAltDown() && TEXT_KEYS.contains(event.getCode());
    }

    /** Sets whether the digits of the keyboard are typed with Shift. */
    public void setFrench(boolean on) {
        french = on;
    }

    /** Makes Space press a button even after a click, as for one that is tapped in time. */
    public static void keepSpace(ButtonBase button) {
        button.getProperties().put(Commands.class, true);
    }

    /** Records the button that the pointer has pressed: Space belongs to the window then, not to the button. */
    public void clicked(Node target) {
        Node button = target;
        while (button != null && !(button instanceof ButtonBase || button instanceof ComboBox)) {
            button = button.getParent();
        }
        clicked = button == null || button.getProperties().containsKey(Commands.class) ? null : button;
    }

    /**
     * Takes Space before a button does that has the focus because it was clicked. Where the keyboard has led to it, Space
     * presses it.
     *
     * @return whether the button is not to see the event
     */
    public boolean takeSpace(KeyEvent event, Node focused) {
        boolean isSpace = event.getCode() == KeyCode.SPACE || " ".equals(event.getCharacter());
        if (!isSpace || !isClicked(focused)) {
            if (event.getEventType() == KeyEvent.KEY_PRESSED && event.getCode().isNavigationKey()
                    || event.getCode() == KeyCode.TAB) {
                clicked = null;
            }
            return false;
        }
        return event.getEventType() != KeyEvent.KEY_PRESSED || take(event, false, false);
    }

    private boolean isClicked(Node focused) {
        return focused != null
                && clicked != null
                && (focused == clicked
                        || focused.getId() != null && focused.getId().equals(clicked.getId()));
    }

    /** Runs the command of a character that was typed outside a text field. */
    public boolean takeTyped(KeyEvent event, Node focused) {
        return !(focused instanceof TextInputControl)
                && run(
                        command -> !command.typed().isEmpty() && command.typed().equals(event.getCharacter()),
                        isRepeated);
    }

    /**
     * Runs the first command that is meant and applies, if there is one.
     *
     * @param again whether its key is only held: then nothing begins or ends a second time
     */
    private boolean run(Predicate<Command> meant, boolean again) {
        Optional<Command> found =
                first(command -> meant.test(command) && command.applies().getAsBoolean());
        found.filter(command -> command.again() || !again)
                .ifPresent(command -> command.action().run());
        return found.isPresent();
    }

    /** The first key of a command as the platform writes it, or its character; empty for neither. */
    public static String sign(Command command) {
        return command.keys().isEmpty()
                ? command.typed()
                : KeyCharacters.combination(command.keys().get(0)).getDisplayText();
    }

    /** Returns the tooltip of a command, with its key. */
    public static String tip(Command command) {
        String sign = sign(command);
        return sign.isEmpty() ? command.explanation() : command.explanation() + " (" + sign + ")";
    }

    /** An entry of a menu for a command, grey where it does not apply now. */
    public MenuItem item(Command command) {
        MenuItem item = new MenuItem(command.words());
        item.setId("menu-" + command.id());
        item.setDisable(!command.applies().getAsBoolean());
        if (!command.keys().isEmpty()) {
            item.setAccelerator(KeyCharacters.combination(command.keys().get(0)));
        }
        item.setOnAction(event -> command.action().run());
        return item;
    }

    /** Entries of a menu for commands, in their order; those of a group stand under its word, where its first does. */
    public List<MenuItem> items(List<Command> commands) {
        Map<String, Menu> groups = new HashMap<>();
        List<MenuItem> items = new ArrayList<>();
        for (Command command : commands) {
            if (command.group().isEmpty()) {
                items.add(item(command));
            } else {
                Menu menu = groups.computeIfAbsent(command.group(), word -> {
                    Menu group = new Menu(word);
                    items.add(group);
                    return group;
                });
                menu.getItems().add(item(command));
            }
        }
        return items;
    }

    /** Connects a button to a command, with its tooltip and key. */
    public <B extends ButtonBase> B on(String id, B button) {
        Command command = get(id);
        button.setTooltip(new Tooltip(tip(command)));
        button.setOnAction(event -> command.action().run());
        return button;
    }
}
