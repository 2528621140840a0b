using System.Collections.Immutable;
using Daxlin.Core.Json;

namespace Daxlin.Service.NamedDocuments;

/// <param name="Place">The key's path.</param>
/// <param name="Line">From 1; 0 if unknown.</param>
public sealed record DocumentFaultRecord(string Place, int Line, string Message)
{
    public static ImmutableArray<DocumentFaultRecord> Of(ImmutableArray<JsonFault> faults) => [.. faults.Select(fault => new DocumentFaultRecord(fault.Place, fault.Line, fault.Message))];
}
