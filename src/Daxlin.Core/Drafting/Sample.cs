using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>An invoice that a template is drafted from.</summary>
/// <param name="FileName">Its file's name, for messages.</param>
public sealed record Sample(string FileName, ImmutableArray<Page> Pages)
{
    /// <summary>All lines of all pages, in reading order.</summary>
    public IEnumerable<TextLine> Lines => Pages.SelectMany(page => page.Lines);
}
