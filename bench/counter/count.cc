// Counts models with BuDDy, a general-purpose package of decision diagrams (Debian's libbdd-dev), for npm run bench.
//
// From standard input, one step a line. `shown N` and `hidden N`: so many variables of either kind, shown ones first.
// `var K`, `not A`, `and A B ...`, `or A B ...`: a formula each, numbered from 2; 0 is false and 1 is true.
// `holds A K ...`: A is true of everybody, and nothing that follows reads the hidden variables K any more.
// Prints the logarithm to base 2 of how many ways there are to set the shown variables, and the milliseconds that this
// took, reading not counted; exits with 3 out of nodes.
#include <bdd.h>

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <iostream>
#include <sstream>
#include <string>
#include <vector>

namespace {

// Twenty bytes each: 600 MB.
constexpr int kMostNodes = 30'000'000;

void outOfNodes(int code) {
  std::fprintf(stderr, "%s\n", bdd_errstring(code));
  std::_Exit(3);
}

struct Step {
  std::string word;
  std::vector<int> of;
};

std::vector<Step> readSteps() {
  std::vector<Step> steps;
  for (std::string line; std::getline(std::cin, line);) {
    std::istringstream words(line);
    Step step;
    words >> step.word;
    for (int number; words >> number;) step.of.push_back(number);
    steps.push_back(step);
  }
  return steps;
}

bdd conjunctionOf(const std::vector<int>& variables) {
  bdd result = bddtrue;
  for (int variable : variables) result &= bdd_ithvar(variable);
  return result;
}

}  // namespace

int main() {
  const std::vector<Step> steps = readSteps();
  const auto begun = std::chrono::steady_clock::now();
  std::vector<int> shown(steps.at(0).of.at(0));
  for (size_t n = 0; n < shown.size(); n += 1) shown[n] = static_cast<int>(n);
  bdd_init(1'000'000, 200'000);
  bdd_error_hook(outOfNodes);
  bdd_gbc_hook(nullptr);
  bdd_setmaxnodenum(kMostNodes);
  bdd_setmaxincrease(2'000'000);
  bdd_setvarnum(static_cast<int>(shown.size()) + steps.at(1).of.at(0));
  std::vector<bdd> formulas = {bddfalse, bddtrue};
  bdd all = bddtrue;
  for (size_t at = 2; at < steps.size(); at += 1) {
    const auto& [word, of] = steps[at];
    if (word == "var") {
      formulas.push_back(bdd_ithvar(of.at(0)));
    } else if (word == "not") {
      formulas.push_back(bdd_not(formulas.at(of.at(0))));
    } else if (word == "and" || word == "or") {
      const bool both = word == "and";
      bdd result = both ? bddtrue : bddfalse;
      for (int one : of) result = both ? result & formulas.at(one) : result | formulas.at(one);
      formulas.push_back(result);
    } else if (word == "holds") {
      const bdd past = conjunctionOf({of.begin() + 1, of.end()});
      all = bdd_appex(all, formulas.at(of.at(0)), bddop_and, past);
    } else {
      std::fprintf(stderr, "unknown step: %s\n", word.c_str());
      return 2;
    }
  }
  const double log2 = bdd_satcountlnset(all, conjunctionOf(shown));
  const std::chrono::duration<double, std::milli> took = std::chrono::steady_clock::now() - begun;
  std::printf("%.12f %.3f\n", log2, took.count());
  return 0;
}
