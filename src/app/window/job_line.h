// The job line: the stages in working order, stitched together, each with a mark that says how it stands.
#pragma once

#include <QAbstractButton>
#include <QWidget>

#include <vector>

#include "core/base/finding.h"

namespace orthema::app {

class StageButton : public QAbstractButton {
    Q_OBJECT
public:
    StageButton(const QString& name, int number, QWidget* parent);
    void show_state(Standing standing, bool waiting, int count, const QString& word, bool chosen);
    [[nodiscard]] Standing standing() const { return standing_; }
    [[nodiscard]] bool waiting() const { return waiting_; }
    [[nodiscard]] QSize sizeHint() const override { return {96, 56}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Standing standing_ = Standing::settled;
    bool waiting_ = false, chosen_ = false;
    int count_ = 0;
    QString word_;
};

/// The way to the shop's orders, above the stages of the one on the table.
class DeskButton : public QAbstractButton {
    Q_OBJECT
public:
    explicit DeskButton(QWidget* parent);
    void show_chosen(bool chosen);
    [[nodiscard]] QSize sizeHint() const override { return {96, 40}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    bool chosen_ = false;
};

class JobLine : public QWidget {
    Q_OBJECT
public:
    explicit JobLine(const QStringList& stages, QWidget* parent = nullptr);
    [[nodiscard]] DeskButton* desk() const { return desk_; }
    [[nodiscard]] StageButton* stage(int index) const { return stages_[std::size_t(index)]; }

signals:
    void chosen(int index);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    DeskButton* desk_;
    std::vector<StageButton*> stages_;
};

}  // namespace orthema::app
