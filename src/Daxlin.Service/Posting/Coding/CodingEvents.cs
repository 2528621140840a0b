using Daxlin.Service.Nodes;
using Daxlin.Service.Work;

namespace Daxlin.Service.Posting.Coding;

/// <summary>Tells who is listening that open invoices were coded anew.</summary>
public sealed class CodingEvents(NodeMessages messages) : ProgressEvents(messages, "coded")
{
    /// <summary>There is one set of rules, so there is one work.</summary>
    public const int Work = 0;
}
