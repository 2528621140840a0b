using System.Collections.Immutable;

namespace Daxlin.Core.Json;

/// <summary>A template or a layout has faults.</summary>
public sealed class JsonFaultException(ImmutableArray<JsonFault> faults)
    : Exception(string.Join(Environment.NewLine, faults))
{
    public ImmutableArray<JsonFault> Faults { get; } = faults;
}
