using Daxlin.Core.Sources;

namespace Daxlin.Service.Sources;

/// <summary>How sources of a kind are looked at.</summary>
internal interface ISourceWay<in TWay>
    where TWay : SourceWay
{
    /// <summary>Takes what has come since the last look.</summary>
    /// <exception cref="SourceTroubleException">It cannot be looked at; what is there waits for the next look.</exception>
    Task<LookedAt> Look(Source source, TWay way, CancellationToken cancel);
}
