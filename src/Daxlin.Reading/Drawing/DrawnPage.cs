using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading.Drawing;

/// <summary>What a page draws, in the order in which it does.</summary>
/// <param name="Width">In points, as a person sees it: turned by its rotation entry, cut to its crop box.</param>
/// <param name="Height">In points.</param>
/// <param name="Letters">Good until the thread draws another page.</param>
/// <param name="Strokes">Rulings, in the page's settled coordinates.</param>
/// <param name="Claims">Texts that the file states for letters which say other figures.</param>
internal sealed record DrawnPage(
    int Number, double Width, double Height, List<DrawnLetter> Letters, ImmutableArray<Cover> Covers, ImmutableArray<Stroke> Strokes, ImmutableArray<(string Claimed, string Drawn, DrawnLetter At)> Claims);
