using System.Globalization;
using Daxlin.Core.Posting.Receivers;

namespace Daxlin.Service.Outgoing;

/// <summary>The Message-IDs of what goes out: the same however often a message is made, so that it can be found.</summary>
internal static class MessageIds
{
    /// <param name="kind">What it is: letter.</param>
    /// <param name="id">Of its row.</param>
    /// <param name="at">When that was stored, so that a restored database gives none a second time.</param>
    public static string Of(string kind, int id, DateTime at, MailWay line) =>
        string.Create(CultureInfo.InvariantCulture, $"{kind}-{id}-{at.Ticks}@{line.From[(line.From.IndexOf('@', StringComparison.Ordinal) + 1)..]}");
}
