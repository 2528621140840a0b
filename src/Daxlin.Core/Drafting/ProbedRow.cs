using System.Collections.Immutable;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Drafting;

/// <summary>A row under headings whose meaning is not known yet.</summary>
/// <param name="Texts">Its text under each heading; empty where it has none.</param>
/// <param name="Place">Where its first figures stand.</param>
internal sealed record ProbedRow(int Sample, ImmutableArray<string> Texts, PlaceOnPage Place);
