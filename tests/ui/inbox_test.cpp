// What threads hand over arrives in the window's thread, whole and in order, or not at all.
#include "document/inbox.h"

#include <gtest/gtest.h>

#include <QCoreApplication>
#include <QThread>
#include <QtTest/QTest>
#include <atomic>
#include <thread>

namespace talvik::app {

TEST(Inbox, CallsInItsOwnThreadEachThreadsInOrder) {
    constexpr int threads = 4, each = 500;
    std::vector<std::vector<int>> came(threads);
    bool elsewhere = false;
    Inbox inbox;
    {
        std::vector<std::jthread> all;
        for (int t = 0; t < threads; ++t)
            all.emplace_back([&, t] {
                for (int i = 0; i < each; ++i)
                    inbox.hand([&, t, i] {
                        came[std::size_t(t)].push_back(i);
                        elsewhere |= QThread::currentThread() != QCoreApplication::instance()->thread();
                    });
            });
    }
    // Nothing came while the window's thread had no time for it.
    for (const auto& one : came) EXPECT_TRUE(one.empty());
    QCoreApplication::processEvents();
    EXPECT_FALSE(elsewhere);
    for (const auto& one : came) {
        ASSERT_EQ(one.size(), std::size_t(each));
        EXPECT_TRUE(std::ranges::is_sorted(one));
    }
}

TEST(Inbox, GoesOnWhileOneWaitsForEvents) {
    Inbox inbox;
    QString order;
    inbox.hand([&] {
        order += QLatin1Char('a');
        EXPECT_TRUE(QTest::qWaitFor([&] { return order.contains(QLatin1Char('b')); }, 2000));
        order += QLatin1Char('c');
    });
    inbox.hand([&] { order += QLatin1Char('b'); });
    ASSERT_TRUE(QTest::qWaitFor([&] { return order.size() == 3; }, 4000));
    EXPECT_EQ(order, QStringLiteral("abc"));
}

TEST(Inbox, WhatWaitsWhenItGoesIsNotCalled) {
    int called = 0;
    const auto owned = std::make_shared<int>(1);
    {
        Inbox inbox;
        std::jthread([&, owned] { inbox.hand([&called, owned] { ++called; }); }).join();
    }
    QCoreApplication::processEvents();
    EXPECT_EQ(called, 0);
    EXPECT_EQ(owned.use_count(), 1);  // and is let go
}

}  // namespace talvik::app
