/** What QTI 3.0 calls things (1EdTech, Question and Test Interoperability 3.0). */
export const NAMESPACE = 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0';
export const PACKAGE_NAMESPACE = 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1';
export const ITEM_TYPE = 'imsqti_item_xmlv3p0';
export const TEST_TYPE = 'imsqti_test_xmlv3p0';
export const MANIFEST = 'imsmanifest.xml';
