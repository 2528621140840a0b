using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>An invoice that a template is drafted from.</summary>
/// <param name="FileName">Its file's name, for messages.</param>
public sealed record Sample(string FileName, ImmutableArray<Page> Pages)
{
    /// <summary>All lines of all pages, in reading order.</summary>
    public IEnumerable<TextLine> Lines => Pages.SelectMany(page => page.Lines);

    /// <summary>
    /// The same as if its text were drawn upright: places that a capture gives are then those of its lines, also where the
    /// text of a page runs up or down.
    /// </summary>
    public Sample Upright => Pages.All(page => page.Drawn == Drawn.Upright) ? this
        : this with { Pages = [.. Pages.Select(page => page with { Drawn = Drawn.Upright })] };
}
