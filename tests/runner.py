"""Django's test runner, closing with one plain line that counts."""

from django.core.servers.basehttp import WSGIRequestHandler
from django.test.runner import DiscoverRunner


class Runner(DiscoverRunner):
    """Ends with 'N passed, N failed'; a run without tests has failed."""

    def setup_test_environment(self, **kwargs):
        super().setup_test_environment(**kwargs)
        WSGIRequestHandler.disable_nagle_algorithm = True

    def suite_result(self, suite, result, **kwargs):
        bad = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        self.closing = f"{result.testsRun - bad - skipped} passed, {bad} failed"
        if skipped:
            self.closing += f", {skipped} skipped"
        return super().suite_result(suite, result, **kwargs) + (1 if result.testsRun == 0 else 0)

    def run_tests(self, *args, **kwargs):
        failures = super().run_tests(*args, **kwargs)
        print(self.closing, flush=True)
        return failures
