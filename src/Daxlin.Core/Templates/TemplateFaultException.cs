using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>A template document has faults.</summary>
public sealed class TemplateFaultException(ImmutableArray<TemplateFault> faults)
    : Exception(string.Join(Environment.NewLine, faults))
{
    public ImmutableArray<TemplateFault> Faults { get; } = faults;
}
