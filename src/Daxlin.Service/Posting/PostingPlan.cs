using System.Collections.Immutable;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.Posting.Lists;

namespace Daxlin.Service.Posting;

/// <summary>What is to be written for some invoices.</summary>
/// <param name="Layout">Null for a file of every value.</param>
/// <param name="LayoutVersion">0 for a file of every value.</param>
internal sealed record PostingPlan(PostingLayout? Layout, int LayoutVersion, ReadLists Lists, RunFacts Run)
{
    /// <summary>False where invoices are only looked at through a layout.</summary>
    public bool MustBeApproved { get; init; } = true;

    /// <summary>The accounts of journals; null where the layout writes none, or the coding rules name none.</summary>
    public JournalAccounts? Journal { get; init; }

    /// <summary>The version of the coding rules that name them; 0 for none.</summary>
    public int CodingVersion { get; init; }

    /// <summary>The translation lists that words are looked up in, each once.</summary>
    public IEnumerable<string> ListsUsed =>
        (Layout?.Lists ?? []).Concat(Journal?.Lists ?? []).Distinct();

    /// <summary>What was known of invoices when they were posted, by their numbers; empty for a run that posts, which takes what is known now.</summary>
    public ImmutableDictionary<int, ApprovedOrigin> Origins { get; init; } = ImmutableDictionary<int, ApprovedOrigin>.Empty;
}
