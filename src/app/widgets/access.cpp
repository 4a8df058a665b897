#include "app/widgets/access.h"

#include <QAccessibleWidget>

#include <vector>

#include "app/widgets/canvas.h"

namespace orthema::app {

namespace {

/// One item; it asks its canvas each time, so that it is never of a drawing of before.
class Item : public QAccessibleInterface, public QAccessibleActionInterface {
public:
    Item(Canvas& canvas, int index) : canvas_(canvas), index_(index) {}
    [[nodiscard]] bool isValid() const override { return item() != nullptr; }
    [[nodiscard]] QObject* object() const override { return nullptr; }
    [[nodiscard]] QAccessibleInterface* parent() const override { return QAccessible::queryAccessibleInterface(&canvas_); }
    [[nodiscard]] QAccessibleInterface* child(int) const override { return nullptr; }
    [[nodiscard]] int childCount() const override { return 0; }
    [[nodiscard]] int indexOfChild(const QAccessibleInterface*) const override { return -1; }
    [[nodiscard]] QAccessibleInterface* childAt(int, int) const override { return nullptr; }
    [[nodiscard]] QString text(QAccessible::Text what) const override {
        const CanvasItem* own = item();
        return own != nullptr && what == QAccessible::Name ? own->name : QString();
    }
    void setText(QAccessible::Text, const QString&) override {}
    [[nodiscard]] QRect rect() const override {
        const CanvasItem* own = item();
        return own != nullptr ? QRect(canvas_.mapToGlobal(own->at.topLeft()), own->at.size()) : QRect();
    }
    [[nodiscard]] QAccessible::Role role() const override { return QAccessible::ListItem; }
    [[nodiscard]] QAccessible::State state() const override {
        QAccessible::State s;
        const CanvasItem* own = item();
        s.invisible = own == nullptr || !canvas_.isVisible();
        s.selectable = s.focusable = own != nullptr && own->choose;
        s.selected = own != nullptr && own->chosen;
        s.focused = own != nullptr && own->chosen && canvas_.hasFocus();
        return s;
    }
    void* interface_cast(QAccessible::InterfaceType type) override {
        return type == QAccessible::ActionInterface ? static_cast<QAccessibleActionInterface*>(this) : nullptr;
    }
    [[nodiscard]] QStringList actionNames() const override {
        const CanvasItem* own = item();
        return own != nullptr && own->choose ? QStringList{pressAction()} : QStringList();
    }
    void doAction(const QString& name) override {
        const CanvasItem* own = item();
        if (own == nullptr || !own->choose || name != pressAction()) return;
        const auto choose = own->choose;  // what it does draws anew, and this item is gone
        choose();
    }
    [[nodiscard]] QStringList keyBindingsForAction(const QString&) const override { return {}; }

private:
    [[nodiscard]] const CanvasItem* item() const {
        const auto& all = canvas_.listed();
        return index_ < 0 || std::size_t(index_) >= all.size() ? nullptr : &all[std::size_t(index_)];
    }
    Canvas& canvas_;
    int index_;
};

class List : public QAccessibleWidget {
public:
    explicit List(Canvas* canvas) : QAccessibleWidget(canvas, QAccessible::List), canvas_(*canvas) {}
    ~List() override {
        for (const QAccessible::Id id : ids_) QAccessible::deleteAccessibleInterface(id);
    }
    [[nodiscard]] int childCount() const override { return int(canvas_.listed().size()); }
    [[nodiscard]] QAccessibleInterface* child(int i) const override {
        if (i < 0 || i >= childCount()) return nullptr;
        while (int(ids_.size()) <= i) ids_.push_back(QAccessible::registerAccessibleInterface(new Item(canvas_, int(ids_.size()))));
        return QAccessible::accessibleInterface(ids_[std::size_t(i)]);
    }
    [[nodiscard]] int indexOfChild(const QAccessibleInterface* of) const override {
        for (std::size_t i = 0; i < ids_.size(); ++i)
            if (QAccessible::accessibleInterface(ids_[i]) == of) return int(i);
        return -1;
    }
    [[nodiscard]] QAccessibleInterface* childAt(int x, int y) const override {
        const QPoint at = canvas_.mapFromGlobal(QPoint(x, y));
        const auto& all = canvas_.listed();
        for (std::size_t i = all.size(); i-- > 0;)  // what lies over the others first
            if (all[i].at.contains(at)) return child(int(i));
        return nullptr;
    }
    [[nodiscard]] QAccessibleInterface* focusChild() const override {
        const auto& all = canvas_.listed();
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i].chosen && canvas_.hasFocus()) return child(int(i));
        return canvas_.hasFocus() ? const_cast<List*>(this) : nullptr;
    }

private:
    Canvas& canvas_;
    mutable std::vector<QAccessible::Id> ids_;
};

QAccessibleInterface* list_of(const QString&, QObject* object) {
    auto* canvas = qobject_cast<Canvas*>(object);
    return canvas == nullptr ? nullptr : new List(canvas);
}

}  // namespace

void make_canvases_accessible() {
    static const bool once = [] {
        QAccessible::installFactory(list_of);
        return true;
    }();
    (void)once;
}

void tell_chosen(Canvas& canvas, QString& told) {
    if (!QAccessible::isActive() || !canvas.hasFocus()) return;
    const auto& all = canvas.listed();
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (!all[i].chosen || all[i].name == told) continue;
        told = all[i].name;
        QAccessibleEvent event(&canvas, QAccessible::Focus);
        event.setChild(int(i));
        QAccessible::updateAccessibility(&event);
        return;
    }
}

}  // namespace orthema::app
