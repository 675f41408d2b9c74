// The batch calculator: one topic per kind of single section, panel, base or bar; comma-separated rows in,
// the same rows with the results out. It calls the same rule facets as the window.
#pragma once

#include <functional>
#include <map>
#include <string>
#include <string_view>
#include <vector>

namespace talvik::calc {

// What a column may hold.
enum class Accepts { Positive, NotNegative, Signed, Share /* 0..1 */, Flag /* 0 or 1 */, Text };
struct Column {
    std::string name, unit, meaning;
    Accepts accepts = Accepts::Positive;
    std::string heading() const { return name + "[" + unit + "]"; }
};
struct Row {
    std::map<std::string, double, std::less<>> number;
    std::map<std::string, std::string, std::less<>> text;
    double operator[](std::string_view name) const { return number.find(name)->second; }
};
// Thrown by a topic's rule where a row has no answer; the message is a sentence.
struct NoAnswer {
    std::string sentence;
};
struct Topic {
    std::string name, title, basis;
    std::vector<Column> inputs, outputs;
    std::vector<std::string>
        otherOutputs;  // columns of the same table that this program does not work out yet
    std::function<std::vector<double>(const Row&)> rule;  // one value per output
    // Columns that hold lists, behind the others, and their texts.
    std::vector<Column> lists{};
    std::function<std::vector<std::string>(const Row&)> listRule{};
};
const std::vector<Topic>& topics();
const Topic* topic(std::string_view name);

// CSV text to CSV text. The first line names the columns with units in brackets, in any order; output columns
// in the input are ignored. On trouble `error` is a sentence naming row and column and `text` is empty.
struct Result {
    std::string text, error;
};
Result run(const Topic& topic, std::string_view csv);
// A page that describes a topic: title, basis, columns.
std::string describe(const Topic& topic);

}  // namespace talvik::calc
