using System.Collections.Immutable;

namespace Daxlin.Core.Posting;

/// <summary>Gathers the columns of a file of every value, invoice by invoice: no more than one need be at hand.</summary>
public sealed class PostingColumnsSoFar
{
    private readonly SortedSet<string> own = new(StringComparer.Ordinal);

    public void Add(ApprovedInvoice invoice) => own.UnionWith(PostingColumns.NamesOf(invoice));

    /// <summary>The settled columns, then those of the templates' own names in alphabetical order, then the source.</summary>
    public ImmutableArray<string> Columns => PostingColumns.With(own);
}
