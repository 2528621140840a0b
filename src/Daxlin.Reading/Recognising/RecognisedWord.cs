using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Recognising;

/// <summary>A word that a recogniser sees in a picture.</summary>
/// <param name="Box">Around its ink, in dots.</param>
/// <param name="Baseline">What it stands on, in dots from the top.</param>
/// <param name="Letters">Each of its letters with the box around its ink, from left to right; their texts together are the word's.</param>
/// <param name="Certainty">What the recogniser says of it, from 0 to 1.</param>
internal sealed record RecognisedWord(string Text, Box Box, double Baseline, ImmutableArray<(string Text, Box Box)> Letters, double Certainty);
